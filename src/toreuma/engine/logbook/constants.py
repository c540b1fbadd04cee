"""The shop's own constants: what tables say, moved by what its log has seen."""

import math
from dataclasses import dataclass

from toreuma.core.measure.learned import EdgeSeen, Learned, Prior, factor_learned, taylor_learned
from toreuma.core.model import Material
from toreuma.core.spoken import said
from toreuma.engine.library import keep_value, library
from toreuma.engine.logbook.renewed import OF_THE_LOG
from toreuma.files.own_machines import MACHINES
from toreuma.files.own_materials import MATERIALS, value_of
from toreuma.files.own_values import Layer
from toreuma.log import Store

__all__ = ["Constant", "constants_of", "counted", "forget_constant", "in_words", "keep_constant"]

KINDS = {
    "force": ("specific force", "of what was computed", Prior(1.0, 0.2), 0.10),
    "ra": ("finish", "of theory", Prior(1.0, 0.3), 0.20),
    "bend": ("deflection", "of what was computed", Prior(1.0, 0.3), 0.20),
    "time": ("real time", "of what was computed", Prior(1.0, 0.1), 0.04),
    "warm-up": ("time constant of warming up", "", Prior(1.0, 0.5), 0.30),
}
"""What is observed against what is computed: words, against what, what is expected before, usual scatter of one."""

FIELD = {"force": "kc11_n_mm2", "ra": "finish_ratio", "bend": "e_n_mm2", "time": "time_ratio", "warm-up": "warm_up_min"}
"""The value of a material or machine that follows a ratio. A piece that gives way more than computed counts as less
stiff: with what gives in its hold."""

LAYER = {"time": MACHINES, "warm-up": MACHINES}
WARM_UP_MIN = 30.0
"""A machine nobody knows warms up with half an hour (typical); what is found is held against that."""

USES = ("rough", "finish", "part_off")


@dataclass(frozen=True, kw_only=True)
class Constant:
    """``of`` is the material or machine it belongs to, ``cutting`` the tool material of a Taylor row. ``field`` is the
    value of the material it would replace, empty for one that is only told."""

    kind: str
    of: str
    name: str
    learned: Learned
    unit: str = ""
    cutting: str = ""
    field: str = ""
    used: bool = False

    @property
    def source(self) -> str:
        """Where it comes from, as a reason says it."""
        what = "edge" if self.kind in ("exponent", "constant") else "observation"
        seen = f"{self.learned.count} {what}{'' if self.learned.count == 1 else 's'}"
        if self.unit or self.kind not in KINDS:
            return f"from {seen} of this shop, tables say {self.learned.table:.4g}"
        against = "is computed" if self.kind == "time" else "tables say"
        return f"from {seen} of this shop, {self.learned.value:.4g} times what {against}"


def constants_of(store: Store, material: Material, machine: str) -> tuple[Constant, ...]:
    """Every constant that tables or the log know of a material and a machine."""
    ships = _shipped(material)
    found: list[Constant] = []
    edges = store.edges_of(material.name)
    for row in ships.speeds:
        c_table = row.constant("rough")
        seen = [
            EdgeSeen(
                vc_m_min=one.vc_m_min, minutes=one.minutes, worn=one.worn,
                factor=_factor(one.vc_m_min, one.planned_min, row.exponent, c_table),
            )
            for one in edges
            if one.cutting == row.tool_material
        ]  # fmt: skip
        exponent, constant = taylor_learned(seen, row.exponent, c_table)
        where = {"of": material.name, "cutting": row.tool_material}
        used = _used(material.name, f"{row.tool_material}.exponent")
        found.append(
            Constant(
                kind="exponent", name="Taylor exponent m", learned=exponent, field=f"{row.tool_material}.exponent",
                used=used, **where,
            )
        )  # fmt: skip
        found.append(
            Constant(
                kind="constant", name="Taylor constant C, roughing", learned=constant, unit="m/min",
                field=f"{row.tool_material}.speeds", used=_used(material.name, f"{row.tool_material}.rough_m_min"),
                **where,
            )
        )  # fmt: skip
    for kind, (name, against, prior, scatter) in KINDS.items():
        of = machine if kind in ("time", "warm-up") else material.name
        seen_of = store.observations(kind, of)
        ratios = [one.found / one.computed for one in seen_of if one.computed]
        if not of or (kind == "bend" and not ships.e_n_mm2):
            continue
        learned, unit = factor_learned(ratios, prior, scatter), ""
        if kind == "warm-up":
            learned, unit = _times(learned, WARM_UP_MIN), "min"
        found.append(
            Constant(
                kind=kind, of=of, name=f"{name}, {against}".rstrip(", "), learned=learned, unit=unit,
                field=FIELD[kind], used=_used(of, FIELD[kind], LAYER.get(kind, MATERIALS)),
            )
        )  # fmt: skip
    return tuple(found)


def counted(kind: str, material: Material) -> float:
    """How many times of what tables say a plan with this material has computed already: what is found is held against
    the tables, not against what an earlier answer of the log made of them."""
    ships = _shipped(material)
    if kind == "force":
        return material.kc11_n_mm2 / ships.kc11_n_mm2
    if kind == "ra":
        return material.finish_ratio / ships.finish_ratio
    if kind == "bend" and ships.e_n_mm2 and material.e_n_mm2:
        return ships.e_n_mm2 / material.e_n_mm2
    return 1.0


def _shipped(material: Material) -> Material:
    """The tables' values of a material; its own where no table knows it."""
    return library().base_materials.get(material.name, material)


def _factor(vc: float, planned_min: float | None, m: float, c: float) -> float:
    """What feed, depth and the rest ask for besides speed, from the life that was planned: vc T^m = C · factor."""
    if not planned_min or not math.isfinite(planned_min) or vc <= 0:
        return 1.0
    return float(vc * planned_min**m / c)


def _times(learned: Learned, unit: float) -> Learned:
    return Learned(learned.value * unit, learned.spread * unit, learned.count, learned.table * unit)


def _used(of: str, field: str, layer: Layer = MATERIALS) -> bool:
    own = library().own if layer is MATERIALS else library().own_of_machines
    return OF_THE_LOG in str(own.get(of, {}).get(field, {}).get("source", ""))


def keep_constant(one: Constant) -> None:
    """Let new plans begin from it: it becomes the shop's own value of the material or the machine, with where it comes
    from. Raises `JobError`."""
    if one.kind in LAYER:
        keep_value(one.of, one.field, float(f"{one.learned.value:.4g}"), one.source, LAYER[one.kind])
    elif one.kind in FIELD:
        ships, ratio = _shipped(library().materials[one.of]), one.learned.value
        if one.kind == "bend":
            keep_value(one.of, one.field, round((ships.e_n_mm2 or 0.0) / ratio, -2), one.source)
        else:
            keep_value(one.of, one.field, float(f"{getattr(ships, one.field) * ratio:.5g}"), one.source)
    elif one.kind == "exponent":
        keep_value(one.of, one.field, round(one.learned.value, 4), one.source)
    elif one.kind == "constant":
        ships = _shipped(library().materials[one.of])
        row = next(row for row in ships.speeds if row.tool_material == one.cutting)
        now = library().materials[one.of]
        m = value_of(now, f"{one.cutting}.exponent") or row.exponent
        share = one.learned.value / 15.0**m / row.rough_m_min
        for use in USES:
            speed = getattr(row, f"{use}_m_min") * share
            keep_value(one.of, f"{one.cutting}.{use}_m_min", round(speed, 1), one.source)


def forget_constant(one: Constant) -> None:
    """Leave it out again: tables count. Raises `JobError`."""
    fields = [f"{one.cutting}.{use}_m_min" for use in USES] if one.kind == "constant" else [one.field]
    for field in fields:
        if field:
            keep_value(one.of, field, None, "", LAYER.get(one.kind, MATERIALS))


def in_words(one: Constant) -> str:
    """A constant with its spread and the count behind it."""
    learned = one.learned
    value = f"{learned.value:.4g} ± {float(f'{learned.spread:.2g}'):g} {one.unit}".strip()
    counted = said("{} seen", learned.count) if learned.count else "nothing seen yet: as tables say"
    return said("{}{}: {} ({}, tables {})", one.name, f", {one.cutting}" if one.cutting else "", value, counted,
                f"{learned.table:.4g}")  # fmt: skip
