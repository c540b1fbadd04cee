"""Parts made by script and said in many hands, against outlines that are drawn here without any of the line's code."""

import random

import pytest
import shapely

from toreuma.core.geometry.part_shape import build_part
from toreuma.engine.line import said

Point = tuple[float, float]


def number(value: float, source: random.Random, inch: bool) -> str:
    """A length as different people write it."""
    if inch:
        parts = round(value * 64)
        whole, rest = divmod(parts, 64)
        if abs(parts / 64 - value) < 1e-9 and source.random() < 0.5:
            return f"{whole}-{rest}/64" if whole and rest else f"{rest}/64" if rest else f"{whole}"
        return f"{value:.4f}".rstrip("0").rstrip(".").lstrip("0")
    text = f"{value:.2f}".rstrip("0").rstrip(".")
    return text.replace(".", ",") if source.random() < 0.2 else text


def step_words(d: float, length: float, source: random.Random, inch: bool) -> str:
    sign = source.choice(("", "", "Ø", "dia ")) + number(d, source, inch)
    by = source.choice((" x ", "x", " × ", " X ", " by "))
    if "-" in sign or "/" in sign:
        by = " x "  # a fraction wants room
    return f"{sign}{by}{number(length, source, inch)}"


def stranger(seed: int) -> tuple[str, str, shapely.Polygon]:
    """A line, its unit, and the half section it must give, in mm."""
    source = random.Random(seed)
    inch = seed % 3 == 0
    unit = 25.4 if inch else 1.0
    grid = 64 if inch else 20
    texts: list[str] = []
    outline: list[Point] = [(0.0, 0.0)]
    z = 0.0
    previous = 0.0
    for index in range(source.randint(1, 6)):
        d = max(source.randint(8, 60) * (1 / 16 if inch else 1.0), 0.5)
        while abs(d - previous) < 6 / grid:
            d += 8.0 / grid
        length = source.randint(3 * grid // 10, 6 * grid // 4) / grid * (1 if inch else 6)
        taper = source.random() < 0.2
        end = d + 8 / grid if taper else d
        words = step_words(d, length, source, inch)
        if taper:
            words = f"{number(d, source, inch)}>{number(end, source, inch)} x {number(length, source, inch)}"
        chamfer = 2 / grid if not taper and source.random() < 0.5 else 0.0
        edge_in_front = index == 0 or d > previous
        if chamfer and edge_in_front:
            words += source.choice((" c", " C", " chamfer ")) + number(chamfer, source, inch)
            if edge_in_front:
                outline += [(z, d / 2 - chamfer), (z - chamfer, d / 2)]
        else:
            outline.append((z, d / 2))
        z -= length
        outline.append((z, end / 2))
        texts.append(words)
        previous = end
    outline.append((z, 0.0))
    text = source.choice((" / ", ", ", "\n", " /")).join(texts)
    region = shapely.Polygon([(a * unit, b * unit) for a, b in outline])
    whole = -z
    if source.random() < 0.5:
        bore = min(p[1] for p in outline[1:-1]) * 0.6 * 2
        bore = max(round(bore * grid) / grid, 1 / grid)
        text += f"; bore {number(bore, source, inch)} through"
        region = region.difference(shapely.box(-whole * unit, 0, 0, bore / 2 * unit))
    if source.random() < 0.3:
        text += f"; length {number(whole, source, False) if not inch else repr(round(whole, 6))}"
    return text, "inch" if inch else "mm", region


@pytest.mark.parametrize("seed", range(120))
def test_a_part_said_by_a_stranger_is_the_part_that_was_meant(seed: int) -> None:
    text, units, region = stranger(seed)
    line = said(text, units)  # type: ignore[arg-type]
    assert [str(fault) for fault in line.faults] == [], text
    assert line.part is not None
    built = build_part(line.part).region
    assert built.symmetric_difference(region).area == pytest.approx(0, abs=2e-3 * region.area), text
