"""What the shop asks of a bar, and of the house rules."""

from toreuma.core.kinds.shop.field import YES_NO, ShopField

__all__ = ["bar_fields", "rules_fields"]

_SHAPES = (("round", "round"), ("hexagon", "hexagon"), ("square", "square"), ("tube", "tube"))
_BAR = (
    ShopField(path="shape", label="shape", form="choice", options=_SHAPES, heading="Bar"),
    ShopField(path="size_mm", label="size", unit="mm", why="diameter, or across flats"),
    ShopField(path="bore_d_mm", label="bore", unit="mm", empty="none", why="of a tube"),
    ShopField(path="length_mm", label="length of a bar", unit="mm", why="parts per bar"),
    ShopField(path="material", label="material", form="text", empty="any", why="only for parts of it"),
    ShopField(path="price_per_kg", label="price per kg", unit="money", why="cost of a part"),
    ShopField(path="note", label="note", form="text", empty="none"),
)


def bar_fields(bar: object) -> tuple[ShopField, ...]:
    """Everything of a bar a person may type."""
    return _BAR


_RULES = (
    ShopField(
        path="stance",
        label="stance",
        form="choice",
        heading="How boldly",
        options=(("gentle", "gentle"), ("normal", "normal"), ("hard", "hard")),
        why="gentle lasts longer, hard is quicker",
    ),
    ShopField(
        path="attended",
        label="somebody watches",
        form="choice",
        options=YES_NO,
        why="nobody beside the machine: chips are broken on purpose, numbers are gentler",
    ),
    ShopField(
        path="aim", label="aim", form="choice", options=(("most metal a minute", "output"), ("least cost", "cost"))
    ),
    ShopField(path="coolant", label="coolant", form="choice", options=(("as usual", "usual"), ("dry", "dry"))),
    ShopField(
        path="face_allowance_mm",
        label="facing allowance",
        unit="mm",
        why="how far a blank stands in front",
        heading="Blanks and edges",
    ),
    ShopField(path="bar_allowance_mm", label="bar larger by", unit="mm", why="on diameter, so that it cleans up"),
    ShopField(path="edge_break_mm", label="break sharp edges", unit="mm", why="chamfer leg, where nothing is drawn"),
    ShopField(
        path="general_tolerance",
        label="general tolerance",
        form="choice",
        options=(("none", ""), ("fine", "f"), ("medium", "m"), ("coarse", "c"), ("very coarse", "v")),
        why="ISO 2768-1, where the drawing says none",
    ),
    ShopField(
        path="thread_infeed",
        label="thread infeed",
        form="choice",
        options=(
            ("a degree beside the flank", "modified"),
            ("square to the axis", "radial"),
            ("along the flank", "flank"),
            ("from both flanks in turn", "alternating"),
        ),
        why="the school of threading: the first is gentlest on edge and finish",
        heading="Schools",
    ),
    ShopField(
        path="thread_division",
        label="thread passes",
        form="choice",
        options=(("equal chip area", "area"), ("equal depth", "depth")),
        why="equal area loads the edge evenly",
    ),
    ShopField(path="spring_passes", label="spring passes", why="at full depth: what bent away comes off"),
    ShopField(
        path="machine_per_h",
        label="an hour of a machine",
        unit="money",
        why="where the machine says none",
        heading="Money and time",
    ),
    ShopField(path="edge_cost", label="a cutting edge", unit="money"),
    ShopField(path="edge_change_min", label="changing an edge", unit="min"),
    ShopField(path="currency", label="currency", form="text", empty="none"),
    ShopField(
        path="offset_error_um",
        label="offsets of two tools differ by",
        unit="um",
        why="steps where they meet",
        heading="Programs",
    ),
    ShopField(path="arcs", label="arcs", form="choice", options=(("by radius (R)", "R"), ("by centre (I, K)", "IK"))),
    ShopField(path="dialect", label="program words", form="text", empty="as the machine wants"),
)


def rules_fields(rules: object) -> tuple[ShopField, ...]:
    """Everything of the house rules a person may type."""
    return _RULES
