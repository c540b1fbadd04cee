"""First articles with known errors: the split finds them within what it says it is uncertain by, or says it cannot."""

import numpy as np
import pytest

from toreuma.core.measure.split import SPREAD_MM, Sized, effect_words, split

TOOLS = ("T1", "T2", "T5")


def article(seed: int) -> tuple[list[Sized], dict[tuple[str, str], float]]:
    """Sizes of one part with offsets, taper, bend and noise that are known."""
    rng = np.random.default_rng(seed)
    x = {tool: rng.normal(0, 0.03) for tool in TOOLS}
    z = {tool: rng.normal(0, 0.05) for tool in TOOLS}
    taper, bent = rng.normal(0, 0.03 / 100), rng.uniform(0.5, 1.5)

    def bend(at: float) -> float:
        return 0.012 * max(0.0, (120 + at) / 120) ** 2

    def seen(sigma: float) -> float:
        return float(rng.normal(0, np.hypot(sigma, SPREAD_MM)))

    sizes = []
    for n in range(int(rng.integers(2, 9))):
        tool, at = ("T2" if rng.random() < 0.7 else "T1"), -float(rng.uniform(2, 120))
        sigma = float(rng.choice([0.001, 0.002, 0.02]))
        error = x[tool] + taper * at + bent * bend(at) + seen(sigma)
        sizes.append(
            Sized(
                key=f"d{n}", what=f"diameter {n}", quantity="diameter", tool=tool, z=at, error_mm=error,
                sigma_mm=sigma, bend_mm=bend(at),
            )
        )  # fmt: skip
    if rng.random() < 0.7:
        error = x["T5"] + taper * -40 + bent * bend(-40) + seen(0.003)
        sizes.append(
            Sized(
                key="w", what="over wires", quantity="wires", tool="T5", z=-40, error_mm=error, sigma_mm=0.003,
                bend_mm=bend(-40),
            )
        )  # fmt: skip
    for n in range(int(rng.integers(0, 4))):
        tool = "T2" if rng.random() < 0.5 else "T5"
        error = z["T1"] - z[tool] + seen(0.003)
        sizes.append(
            Sized(
                key=f"l{n}", what=f"length {n}", quantity="length", tool=tool, other="T1", z=-20, error_mm=error,
                sigma_mm=0.003,
            )
        )  # fmt: skip
    truth = {("taper", "0"): taper, ("bend", "0"): bent}
    truth |= {("offset X", tool): x[tool] for tool in TOOLS}
    truth |= {("offset Z", tool): z[tool] - z["T1"] for tool in TOOLS}
    return sizes, truth


def test_two_hundred_first_articles_are_right_within_twice_their_deviation() -> None:
    inside = told = untold = 0
    for seed in range(200):
        sizes, truth = article(seed)
        for effect in split(sizes).effects:
            untold += not effect.told
            if effect.told:
                told += 1
                inside += abs(effect.value - truth[(effect.kind, effect.of)]) <= effect.uncertainty
    assert told > 500
    assert untold > 100  # what cannot be told is said to be so
    assert inside / told >= 0.95


def test_it_never_proposes_more_than_was_measured() -> None:
    for seed in range(200):
        sizes, _ = article(seed)
        for offset in split(sizes).offsets:
            own = [abs(one.error_mm) for one in sizes if one.key in offset.from_sizes]
            assert abs(offset.mm) <= max(own) + 1e-12
            assert abs(offset.mm) > offset.uncertainty_mm or abs(offset.mm) == pytest.approx(max(own))


def at(z: float, error: float, tool: str = "T2", **more: float) -> Sized:
    return Sized(
        key=f"{tool}{z:g}", what=f"Ø at Z {z:g}", quantity="diameter", tool=tool, z=z, error_mm=error,
        sigma_mm=0.001, **more,
    )  # fmt: skip


def test_an_error_that_all_diameters_share_is_the_offset() -> None:
    found = split([at(-5, 0.020), at(-60, 0.021), at(-110, 0.019), at(-30, 0.020)])
    offset = found.of("offset X", "T2")
    assert offset is not None
    assert offset.told
    assert offset.value == pytest.approx(0.020, abs=offset.uncertainty)
    taper = found.of("taper")
    assert taper is not None
    assert not taper.matters
    assert [(one.tool, one.axis, round(one.mm, 3)) for one in found.offsets] == [("T2", "X", -0.020)]
    assert "within its uncertainty" in effect_words(taper, {})


def test_an_error_that_grows_along_z_is_taper_and_no_offset() -> None:
    found = split([at(-2, 0.0), at(-40, -0.012), at(-80, -0.024), at(-118, -0.0354)])
    taper = found.of("taper")
    assert taper is not None
    assert taper.matters
    assert 100 * taper.value == pytest.approx(0.030, abs=100 * taper.uncertainty)
    assert found.offsets == ()
    assert "growing away from the hold" in effect_words(taper, {})


def test_two_sizes_close_together_do_not_tell_offset_from_taper_and_one_far_off_would() -> None:
    near = [at(-100, 0.030), at(-101, 0.030)]
    could = [at(-99, 0.0), at(-4, 0.0), at(-50, 0.0, "T1")]
    found = split(near, could, {"T2": "Slim 55°"})
    offset = found.of("offset X", "T2")
    assert offset is not None
    assert not offset.told
    assert offset.from_ == "taper along Z"
    assert offset.would_tell == "Ø at Z -4"
    words = effect_words(offset, {"T2": "Slim 55°"})
    assert "offset X of Slim 55°: cannot be told apart from taper along Z" in words
    assert "measure Ø at Z -4" in words
    (proposed,) = found.offsets  # it brings these two right, whatever the cause
    assert not proposed.sure
    assert proposed.mm == pytest.approx(-0.030)


def test_lengths_are_told_against_the_tool_that_cut_the_face() -> None:
    lengths = [
        Sized(key=str(n), what="shoulder", quantity="length", tool="T3", other="T1", z=-20.0 * n, error_mm=0.05,
              sigma_mm=0.002)
        for n in (1, 2)
    ]  # fmt: skip
    found = split(lengths)
    assert found.datum == "T1"
    offset = found.of("offset Z", "T3")
    assert offset is not None
    assert offset.value == pytest.approx(-0.05, abs=offset.uncertainty)
    assert [(one.tool, one.axis, round(one.mm, 3)) for one in found.offsets] == [("T3", "Z", 0.05)]


def test_lengths_between_faces_of_one_tool_are_left_as_they_are() -> None:
    one = Sized(key="a", what="shoulder", quantity="length", tool="T1", other="T1", z=-20, error_mm=0.04)
    found = split([one])
    assert found.effects == ()
    assert found.rest == {"a": 0.04}


def test_nothing_measured_is_nothing_said() -> None:
    assert split([]).effects == ()
    assert split([at(-5, float("nan"))]).offsets == ()
