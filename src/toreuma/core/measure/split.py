"""A first article taken apart: what all sizes of a tool share, what grows along Z, what bends, and what is left.

Weighted least squares with wide normal priors (Bayesian linear regression, e.g. Gelman et al., Bayesian Data Analysis,
ch. 14): the prior keeps the sum solvable, and shows by how little it shrinks what the sizes do not tell. Uncertainties
are two standard deviations (GUM, k = 2).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from toreuma.core.spoken import q, said

__all__ = ["Effect", "Offset", "Sized", "Split", "split"]

Kind = Literal["offset X", "offset Z", "taper", "bend"]
Array = npt.NDArray[np.float64]

SPREAD_MM = 0.002
"""Sizes differ so much from part to part, one standard deviation, besides what a gauge adds (typical)."""

PRIOR: Mapping[Kind, float] = {"offset X": 0.3, "offset Z": 0.3, "taper": 1e-3, "bend": 1.0}
"""Standard deviations before anything is measured: mm, mm of diameter per mm, share of the computed bend."""

TOLD = 5.0
"""An effect is told where its standard deviation, on the size it moves most, is below so many of the usual size's."""

LEAST_BEND_MM = 0.001
"""A computed bend below this is not looked for."""


@dataclass(frozen=True, kw_only=True)
class Sized:
    """A size as it was found, or one that could be measured.

    ``tool`` cut it, ``other`` the face its length is counted from. ``z`` mm along the part, ``hold`` counts the sides.
    ``error_mm`` is what was found over what was aimed at (on diameter for a diameter); ``sigma_mm`` one standard
    deviation of measuring it; ``bend_mm`` what the computed bend makes of it, on diameter.
    """

    key: str
    what: str
    quantity: Literal["diameter", "wires", "length"]
    tool: str
    z: float
    error_mm: float = 0.0
    sigma_mm: float = 0.005
    hold: int = 0
    other: str = ""
    bend_mm: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Effect:
    """One cause. ``value`` is mm on diameter (offset X), mm (offset Z), mm of diameter per mm of length (taper, growing
    away from the hold), or the share of the computed bend; ``uncertainty`` is k = 2.

    ``told`` is false where the sizes do not tell it; ``from_`` names what it cannot be told apart from, and
    ``would_tell`` the one size more that would.
    """

    kind: Kind
    of: str
    value: float
    uncertainty: float
    at_most_mm: float
    told: bool
    from_: str = ""
    would_tell: str = ""

    @property
    def matters(self) -> bool:
        """It is told, and larger than its uncertainty."""
        return self.told and abs(self.value) > self.uncertainty


@dataclass(frozen=True, kw_only=True)
class Offset:
    """What to add to a tool's offset: mm, on diameter for X. ``sure`` is false where its cause is not told apart."""

    tool: str
    axis: Literal["X", "Z"]
    mm: float
    uncertainty_mm: float
    sure: bool
    from_sizes: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Split:
    """``rest`` is what no cause explains, by the key of the size; ``against_expected`` how large that is on the whole
    against what was expected (1 is as expected). ``datum`` is the tool whose face lengths are counted from: offsets Z
    of others are told against it."""

    effects: tuple[Effect, ...]
    offsets: tuple[Offset, ...]
    rest: Mapping[str, float]
    against_expected: float
    datum: str = ""

    def of(self, kind: Kind, of: str = "") -> Effect | None:
        return next((one for one in self.effects if one.kind == kind and of in ("", one.of)), None)


Cause = tuple[Kind, str]


def split(sizes: Sequence[Sized], could: Sequence[Sized] = (), names: Mapping[str, str] | None = None) -> Split:
    """Split the errors of one part. ``could`` are sizes that were not measured; ``names`` are tools in words."""
    sizes = [one for one in sizes if np.isfinite(one.error_mm) and one.sigma_mm > 0]
    if not sizes:
        return Split(effects=(), offsets=(), rest={}, against_expected=0.0)
    datum = _datum(sizes)
    causes = _causes(sizes, datum)
    if not causes:  # lengths between faces of one tool
        alone = {one.key: one.error_mm for one in sizes}
        return Split(effects=(), offsets=(), rest=alone, against_expected=0.0, datum=datum)
    rows = np.array([_row(one, causes) for one in sizes])
    errors = np.array([one.error_mm for one in sizes])
    sigma = np.hypot([one.sigma_mm for one in sizes], SPREAD_MM)
    prior = np.array([PRIOR[kind] for kind, _ in causes])
    scaled = rows / sigma[:, None]
    precision = scaled.T @ scaled + np.diag(1 / prior**2)
    cov = np.linalg.inv(precision)
    found = cov @ (scaled.T @ (errors / sigma))
    rest = errors - rows @ found
    freedom = len(sizes) - float(np.trace(cov @ (scaled.T @ scaled)))
    chi = float(np.sqrt(np.sum((rest / sigma) ** 2) / freedom)) if freedom > 0.5 else 1.0
    cov = cov * max(chi, 1.0) ** 2  # sizes that fit worse than expected tell less (Birge)
    usual = float(np.median(sigma))
    effects = tuple(_effect(n, causes, found, cov, rows, usual, could, names or {}) for n in range(len(causes)))
    return Split(
        effects=effects,
        offsets=tuple(_offsets(sizes, effects, sigma)),
        rest={one.key: float(value) for one, value in zip(sizes, rest, strict=True)},
        against_expected=chi,
        datum=datum,
    )


def _datum(sizes: Sequence[Sized]) -> str:
    """The tool whose face most lengths are counted from: lengths tell of the others against it."""
    faces = [one.other for one in sizes if one.quantity == "length" and one.other]
    return max(faces, key=faces.count) if faces else ""


def _causes(sizes: Sequence[Sized], datum: str) -> list[Cause]:
    """Everything that may be behind these sizes; a bend that moves nothing is not looked for."""
    found: dict[Cause, None] = {}
    for one in sizes:
        if one.quantity == "length":
            if one.tool != one.other:
                for tool in {one.tool, one.other} - {datum, ""}:
                    found[("offset Z", tool)] = None
        else:
            found[("offset X", one.tool)] = None
            found[("taper", str(one.hold))] = None
            if abs(one.bend_mm) > LEAST_BEND_MM:
                found[("bend", str(one.hold))] = None
    return list(found)


def _row(one: Sized, causes: Sequence[Cause]) -> list[float]:
    """What each cause does to a size when it is one. A length between two faces grows with the offset of the one it is
    counted from and falls with that of the other."""
    row = []
    for kind, of in causes:
        length = one.quantity == "length"
        if kind == "offset X":
            row.append(1.0 if not length and of == one.tool else 0.0)
        elif kind == "offset Z":
            row.append(((of == one.other) - (of == one.tool)) * 1.0 if length else 0.0)
        elif kind == "taper":
            row.append(one.z if not length and of == str(one.hold) else 0.0)
        else:
            row.append(one.bend_mm if not length and of == str(one.hold) else 0.0)
    return row


def _effect(
    n: int,
    causes: Sequence[Cause],
    found: Array,
    cov: Array,
    rows: Array,
    usual: float,
    could: Sequence[Sized],
    names: Mapping[str, str],
) -> Effect:
    kind, of = causes[n]
    moves = float(np.abs(rows[:, n]).max())
    deviation = float(np.sqrt(cov[n, n]))
    told = deviation * moves < TOLD * usual
    effect = Effect(
        kind=kind, of=of, value=float(found[n]), uncertainty=2 * deviation, at_most_mm=moves * abs(float(found[n])),
        told=told,
    )  # fmt: skip
    if told:
        return effect
    return Effect(
        kind=kind, of=of, value=effect.value, uncertainty=effect.uncertainty, at_most_mm=effect.at_most_mm, told=False,
        from_=_apart_from(n, causes, cov, names), would_tell=_would_tell(n, causes, cov, could, moves, usual),
    )  # fmt: skip


def _apart_from(n: int, causes: Sequence[Cause], cov: Array, names: Mapping[str, str]) -> str:
    """The cause that goes with it most closely."""
    deviations = np.sqrt(np.diag(cov))
    alike = np.abs(cov[n] / deviations / deviations[n])
    alike[n] = 0.0
    if not len(alike) or alike.max() < 0.3:
        return ""
    kind, of = causes[int(alike.argmax())]
    return cause_words(kind, of, names)


def cause_words(kind: Kind, of: str, names: Mapping[str, str]) -> str:
    """A cause in words."""
    if kind in ("offset X", "offset Z"):
        return said("{} of {}", kind, names.get(of, of))
    if kind == "taper":
        return "taper along Z" if of == "0" else "taper along Z in the second hold"
    return "the bend of the piece"


def _would_tell(n: int, causes: Sequence[Cause], cov: Array, could: Sequence[Sized], moves: float, usual: float) -> str:
    """The one size more that narrows an effect most, measured as closely as the others, where any narrows it enough to
    tell."""
    best, words = TOLD * usual / max(moves, 1e-12), ""
    for one in could:
        row = np.array(_row(one, causes))
        if one.quantity != "length" and ("offset X", one.tool) not in causes:
            continue  # it would bring an unknown of its own
        if one.quantity == "length" and not row.any():
            continue
        sigma2 = min(one.sigma_mm, usual) ** 2 + SPREAD_MM**2
        along = cov @ row
        left = cov[n, n] - along[n] ** 2 / (sigma2 + row @ along)
        deviation = float(np.sqrt(max(left, 0.0)))
        if deviation < best:
            best, words = deviation, one.what
    return words


def _offsets(sizes: Sequence[Sized], effects: Sequence[Effect], sigma: Array) -> list[Offset]:
    """What brings the sizes of each tool to where they were aimed: never more than was measured on it."""
    found = []
    for effect in effects:
        if effect.kind not in ("offset X", "offset Z"):
            continue
        axis: Literal["X", "Z"] = "X" if effect.kind == "offset X" else "Z"
        own = [
            (one, s)
            for one, s in zip(sizes, sigma, strict=True)
            if (one.quantity == "length") == (axis == "Z") and (one.tool == effect.of or one.other == effect.of)
        ]
        value, uncertainty, sure = effect.value, effect.uncertainty, effect.told
        if axis == "Z" and not sure:
            continue  # a length does not say which of its two faces is off
        if not effect.matters and axis == "X":  # whatever the cause: what brings these sizes to where they were aimed
            weights = np.array([1 / s**2 for _, s in own])
            errors = [one.error_mm - _explained(one, effects) for one, _ in own]
            value = float(np.sum(weights * errors) / weights.sum())
            uncertainty, sure = 2 * float(1 / np.sqrt(weights.sum())), False
        most = max(abs(one.error_mm) for one, _ in own)
        if abs(value) <= uncertainty:
            continue
        value = float(np.clip(value, -most, most))
        found.append(
            Offset(
                tool=effect.of, axis=axis, mm=-value, uncertainty_mm=uncertainty, sure=sure,
                from_sizes=tuple(one.key for one, _ in own),
            )
        )  # fmt: skip
    return found


def _explained(one: Sized, effects: Sequence[Effect]) -> float:
    """What taper and bend make of a diameter, where they are told and seen."""
    found = 0.0
    for effect in effects:
        if effect.matters and effect.of == str(one.hold):
            found += effect.value * (one.z if effect.kind == "taper" else one.bend_mm)
    return found


def effect_words(effect: Effect, names: Mapping[str, str]) -> str:
    """What a cause comes to, in a sentence with its uncertainty."""
    what = cause_words(effect.kind, effect.of, names)
    if not effect.told:
        apart = said(" apart from {}", effect.from_) if effect.from_ else ""
        more = said("; measure {} as closely to tell", effect.would_tell) if effect.would_tell else ""
        return said("{}: cannot be told{} from these sizes{}", what, apart, more)
    if effect.kind == "taper":
        size = said(
            "{} ± {} of diameter over 100 mm, growing {}", q(100 * abs(effect.value), "mm", ".4f"),
            q(100 * effect.uncertainty, "mm", ".4f"), "away from the hold" if effect.value > 0 else "toward the hold",
        )  # fmt: skip
    elif effect.kind == "bend" and effect.uncertainty > 1:
        return said("{}: too small to be seen in these sizes", what)
    elif effect.kind == "bend":
        size = f"{100 * effect.value:.0f} ± {100 * effect.uncertainty:.0f} % of what was computed"
    else:
        on = " on diameter" if effect.kind == "offset X" else ""
        size = said("{} ± {}{}", q(effect.value, "mm", "+.4f"), q(effect.uncertainty, "mm", ".4f"), on)
    sure = "" if effect.matters else "; within its uncertainty"
    return said("{}: {}{}", what, size, sure)
