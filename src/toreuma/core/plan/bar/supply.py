"""Material: weights, parts per bar, what is left, what it costs."""

import math
from dataclasses import dataclass

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import rotated_volume
from toreuma.core.model import FreeBlank, Job, Part, PartingTool, Stock
from toreuma.core.scene import Scene

__all__ = ["SupplyNumbers", "cut_width_mm", "supply_numbers"]


@dataclass(frozen=True)
class SupplyNumbers:
    """The blank's yield, and what a person reads about it, in the order people ask.

    ``pitch_mm`` is the bar one part uses up, ``parts`` how many a bar gives; None where there is no bar.
    """

    reasons: tuple[Evidence, ...]
    findings: tuple[Finding, ...]
    pitch_mm: float | None = None
    parts: int | None = None


def supply_numbers(part: Part, stock: Stock, cut_mm: float, scene: Scene) -> SupplyNumbers:
    """Weights of blank and part, the bar's yield, and the price of a part's material; ``cut_mm`` is the width of the
    part-off cut."""
    supply = stock.supply
    density = stock.material.density_kg_m3 * 1e-9
    part_kg = rotated_volume(scene.part) * density
    is_bar = stock.length_mm is None and not isinstance(stock, FreeBlank)
    pitch_mm, pitch = _pitch(part, stock, cut_mm)
    parts = _parts_of_bar(stock, pitch_mm)
    blank_kg = _blank_kg(stock, scene, density, pitch_mm if is_bar else None)
    removed = 1 - part_kg / blank_kg if blank_kg > 0 else 0.0
    found = [
        Evidence(
            "blank", "m0", blank_kg, "kg", formula="volume · density, all one part uses up", inputs=_density(stock)
        ),
        Evidence(
            "part",
            "m1",
            part_kg,
            "kg",
            formula="turned volume · density; milled extras not taken off",
            source="Pappus: V = 2π A r̄",
            inputs=_density(stock),
        ),
        Evidence("cut to chips", "", removed, "share", formula="1 − m1/m0"),
    ]
    findings: list[Finding] = []
    if is_bar:
        found += [pitch, *_bar(stock, pitch_mm, parts)]
        if supply.batch and parts < 1:
            findings.append(
                Finding("error", "bar.short", "not one part comes out of a bar this long", "use a longer bar")
            )
    if supply.price_per_kg > 0:
        found.append(
            Evidence(
                "material per part",
                "",
                _paid_kg(stock, blank_kg, parts if is_bar else None) * supply.price_per_kg,
                "ratio",
                formula="weight bought per part · price per kg, the rest of the bar shared out",
                inputs=(Input("price per kg", "", supply.price_per_kg, "ratio"),),
                measured_on=f"in {supply.currency}" if supply.currency else "in the currency of the price",
            )
        )
    yields = (pitch_mm, parts) if is_bar else (None, None)
    return SupplyNumbers(tuple(found), tuple(findings), *yields)


def _density(stock: Stock) -> tuple[Input, ...]:
    return (Input("density, kg/m³", "ρ", stock.material.density_kg_m3, ""),)


def cut_width_mm(job: Job) -> float:
    """Width of the part-off cut: typed, else the blade's, else 3 mm."""
    if job.stock.supply.part_off_mm is not None:
        return job.stock.supply.part_off_mm
    for operation in job.operations:
        tool = job.tool(operation.tool)
        if operation.kind == "part_off" and isinstance(tool, PartingTool):
            return tool.blade.width_mm
    return 3.0


def _pitch(part: Part, stock: Stock, width: float) -> tuple[float, Evidence]:
    """Bar used up by one part. Back to back, two parts share one facing and one cut."""
    supply, facing = stock.supply, stock.face_allowance_mm
    length = -min(element.z_mm for element in part.outside)
    inputs = (
        Input("part", "l", length, "mm"),
        Input("part-off", "w", width, "mm"),
        Input("facing", "a", facing, "mm"),
        Input("lost by gripping again", "g", supply.regrip_mm, "mm"),
    )
    if supply.back_to_back:
        pair = 2 * length + width + 2 * facing + width + supply.regrip_mm
        return pair / 2, Evidence(
            "bar per part, two back to back", "p", pair / 2, "mm", formula="(2 l + 2 w + 2 a + g)/2", inputs=inputs
        )
    each = length + width + facing + supply.regrip_mm
    return each, Evidence("bar per part", "p", each, "mm", formula="l + w + a + g", inputs=inputs)


def _parts_of_bar(stock: Stock, pitch_mm: float) -> int:
    supply = stock.supply
    unit = 2 if supply.back_to_back else 1
    useful = supply.bar_length_mm - supply.remnant_mm
    return max(unit * math.floor(useful / (unit * pitch_mm) + 1e-9), 0)


def _bar(stock: Stock, pitch_mm: float, parts: int) -> list[Evidence]:
    supply = stock.supply
    rest = supply.bar_length_mm - parts * pitch_mm
    bars = math.ceil(supply.batch / parts) if parts else 0
    return [
        Evidence(
            "parts per bar",
            "n",
            float(parts),
            "",
            formula="⌊(bar − shortest rest)/p⌋" + (", in pairs" if supply.back_to_back else ""),
            inputs=(
                Input("bar", "L", supply.bar_length_mm, "mm"),
                Input("shortest rest that can be held", "", supply.remnant_mm, "mm"),
            ),
        ),
        Evidence("rest of the bar", "", rest, "mm", formula="L − n p"),
        Evidence(
            "bars for the batch",
            "",
            float(bars),
            "",
            formula="⌈batch/n⌉",
            inputs=(Input("batch", "", float(supply.batch), ""),),
        ),
    ]


def _blank_kg(stock: Stock, scene: Scene, density: float, pitch_mm: float | None) -> float:
    if pitch_mm is None or isinstance(stock, FreeBlank):
        return rotated_volume(scene.stock) * density
    return stock.section_mm2() * pitch_mm * density


def _paid_kg(stock: Stock, blank_kg: float, parts: int | None) -> float:
    """Weight that is bought for one part; ``parts`` of a bar, None where there is no bar."""
    if parts is None or isinstance(stock, FreeBlank):
        return blank_kg
    supply = stock.supply
    whole = stock.section_mm2() * supply.bar_length_mm * stock.material.density_kg_m3 * 1e-9
    return whole / parts if parts else whole
