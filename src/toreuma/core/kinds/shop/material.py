"""What the shop asks of a material."""

from typing import Any

from toreuma.core.kinds.shop.field import YES_NO, ShopField

__all__ = ["material_fields"]

_MATERIAL = (
    ShopField(
        path="group",
        label="group",
        form="choice",
        heading="Kind",
        options=tuple((f"{one}", one) for one in "PMKNSH"),
        why="ISO 513: which tools and speeds suit",
    ),
    ShopField(path="hardness_hb", label="hardness, HB", empty="as its like", why="as it lies on the rack"),
    ShopField(
        path="work_hardens",
        label="work-hardens",
        form="choice",
        options=YES_NO,
        why="the edge must cut below the last pass",
    ),
    ShopField(
        path="kc11_n_mm2", label="cutting force kc1.1", unit="N/mm2", why="force, power and bending", heading="Cutting"
    ),
    ShopField(path="mc", label="exponent mc", unit="ratio", why="thin chips cost more"),
    ShopField(
        path="drill_feed_mm_rev",
        label="feed of a drill of 10 mm",
        unit="mm/rev",
        empty="middle of each drill's range",
        why="of high-speed steel; others follow by diameter",
    ),
    ShopField(
        path="mill_feed_mm",
        label="feed of a tooth of a mill of 10 mm",
        unit="mm",
        empty="middle of each mill's range",
        why="of carbide; others follow by diameter",
    ),
    ShopField(path="finish_ratio", label="finish found over theory", unit="ratio", why="1 as feed and nose leave it"),
    ShopField(path="density_kg_m3", label="density, kg/m³", why="weight and price", heading="Body"),
    ShopField(path="e_n_mm2", label="Young's modulus", unit="N/mm2", empty="as steel", why="bending"),
    ShopField(path="alpha_um_m_k", label="expansion, µm/(m K)", empty="not looked at", why="warm parts measure large"),
    ShopField(path="conductivity_w_m_k", label="conducts heat, W/(m K)", empty="not looked at", why="heat at the edge"),
    ShopField(path="heat_j_kg_k", label="specific heat, J/(kg K)", empty="not looked at", why="heat at the edge"),
    ShopField(path="coolant", label="coolant", form="text", empty="as usual"),
    ShopField(path="caution", label="caution", form="text", empty="none", why="one sentence where chips can hurt"),
)


def material_fields(material: Any) -> tuple[ShopField, ...]:
    """Everything of a material a person may type, its speeds by tool material."""
    found = list(_MATERIAL)
    for index, row in enumerate(material.speeds):
        path = f"speeds.{index}"
        found += [
            ShopField(
                path=f"{path}.rough_m_min", label="roughing", unit="m/min", heading=f"Speeds: {row.tool_material}"
            ),
            ShopField(path=f"{path}.finish_m_min", label="finishing", unit="m/min"),
            ShopField(path=f"{path}.part_off_m_min", label="parting off", unit="m/min"),
            ShopField(
                path=f"{path}.exponent", label="Taylor exponent m", unit="ratio", why="how fast life falls with speed"
            ),
        ]
    return tuple(found)
