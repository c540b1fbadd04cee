"""The person's own values of materials: their fields, and a material with one of them changed.

Speeds are named by tool material and use, as ``coated carbide.rough_m_min``.
"""

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.model import Machine, Material
from toreuma.core.value import Value
from toreuma.files.own_values import Layer

__all__ = ["FIELDS", "MATERIALS", "source_of", "speed_fields", "value_of"]

FIELDS = (
    "kc11_n_mm2",
    "mc",
    "density_kg_m3",
    "hardness_hb",
    "e_n_mm2",
    "conductivity_w_m_k",
    "heat_j_kg_k",
    "alpha_um_m_k",
    "finish_ratio",
)
SPEED_FIELDS = ("rough_m_min", "finish_m_min", "part_off_m_min", "exponent")


def speed_fields(material: Material) -> list[str]:
    """The fields of a material's starting speeds, as ``tool material.field``."""
    return [f"{row.tool_material}.{field}" for row in material.speeds for field in SPEED_FIELDS]


def value_of(material: Value, field: str) -> float | None:
    """A value of a material, or of a machine, by its field."""
    if "." not in field:
        return getattr(material, field, None)
    tool, name = field.split(".", 1)
    row = next((row for row in getattr(material, "speeds", ()) if row.tool_material == tool), None)
    return getattr(row, name, None) if row else None


def source_of(one: Material | Machine, field: str) -> str:
    """Where a value of the person's own comes from; empty for one that ships."""
    tool, _, bare = field.rpartition(".")
    rows = one.speeds if tool and isinstance(one, Material) else ()
    return next((row.source for row in rows if row.tool_material == tool), "" if tool else one.source_of(bare))


def _changed(material: Material, field: str, value: object, source: str) -> Material:
    try:
        note = f"{material.source}; {field}: {source}"[:120]
        if "." not in field:
            if field not in FIELDS:
                raise JobError(f"material {material.name}", f"has no value '{field}'", "choose one of its values")
            kept = {**dict(material.sources), field: source[:120] or "own"}
            return material.changed(**{field: value}, source=note, sources=tuple(sorted(kept.items())))
        tool, name = field.split(".", 1)
        rows = tuple(
            row.changed(**{name: value}, source=_told(row.source, name, source))
            if row.tool_material == tool and name in SPEED_FIELDS
            else row
            for row in material.speeds
        )
        return material.changed(speeds=rows, source=note)
    except ValidationError as error:
        what = error.errors()[0]["msg"]
        raise JobError(f"{material.name}, {field}", f"cannot be {value}: {what}", "type a usual value") from error


def _told(before: str, name: str, source: str) -> str:
    """What is said of a row's own values, one after the other."""
    words = f"{name.removesuffix('_m_min').replace('_', ' ')} {source}"
    return f"{before}; {words}"[-400:] if before else words[:400]


MATERIALS = Layer("material", "materials.json", lambda one: [*FIELDS, *speed_fields(one)], _changed)
