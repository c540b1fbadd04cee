"""What the shop asks of machines, holds, materials, bars and rules: each field once, with its unit, why it matters and
what is taken while it is empty. Ranges are the model's."""

from collections.abc import Callable
from typing import Any

from toreuma.core.kinds.shop.dialect import dialect_fields
from toreuma.core.kinds.shop.field import ShopField, range_of
from toreuma.core.kinds.shop.hold import centre_fields, hold_fields
from toreuma.core.kinds.shop.machine import machine_fields
from toreuma.core.kinds.shop.material import material_fields
from toreuma.core.kinds.shop.rest import rest_fields
from toreuma.core.kinds.shop.rules import bar_fields, rules_fields
from toreuma.core.kinds.shop.tool import rack_fields, tool_fields

__all__ = ["FIELDS_OF", "ShopField", "range_of"]

FIELDS_OF: dict[str, Callable[[Any], tuple[ShopField, ...]]] = {
    "machine": machine_fields,
    "hold": hold_fields,
    "centre": centre_fields,
    "rest": rest_fields,
    "material": material_fields,
    "bar": bar_fields,
    "rules": rules_fields,
    "tool": tool_fields,
    "insert": tool_fields,
    "holder": tool_fields,
    "rack": rack_fields,
    "dialect": dialect_fields,
}
"""Fields of an entry by its kind, given the entry."""
