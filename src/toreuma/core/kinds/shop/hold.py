"""What the shop asks of a chuck, a collet, a mandrel or a face driver."""

from toreuma.core.kinds.shop.field import YES_NO, ShopField
from toreuma.core.model import Chuck, Collet, FaceDriver, JawSet, Mandrel

__all__ = ["centre_fields", "hold_fields"]

JAWS = (("hard, serrated", "hard"), ("soft, bored", "soft"))

_HOLD = (
    ShopField(
        path="force_n",
        label="grip at rest, all jaws",
        unit="N",
        empty="unknown: not judged",
        why="what holds the piece before speed takes some of it",
        heading="Limits",
    ),
    ShopField(path="max_rpm", label="speed on its plate", unit="rpm", why="never exceeded"),
    ShopField(
        path="friction", label="friction", unit="ratio", empty="by kind of jaw", why="hard serrated 0.28, soft 0.18"
    ),
    ShopField(path="safety", label="wanted safety", unit="ratio", why="of the grip against the hardest cut"),
    ShopField(path="grip_length_mm", label="grip length", unit="mm", why="what the jaws hold", heading="Sizes"),
    ShopField(path="body_d_mm", label="body", unit="mm", why="what tools must keep clear of"),
    ShopField(path="body_length_mm", label="body long", unit="mm"),
    ShopField(path="tool_clearance_mm", label="tools keep clear by", unit="mm"),
)
_CHUCK = (
    ShopField(path="grip_range_mm", label="takes", unit="mm", form="span", empty="any", why="diameters, from and to"),
    ShopField(
        path="opens_mm",
        label="opens by",
        unit="mm",
        empty="by hand, all the way",
        why="on diameter: a wider head does not go in",
    ),
    ShopField(path="jaws", label="jaws", form="choice", options=(("hard, serrated", "hard"), ("soft, bored", "soft"))),
    ShopField(path="jaw_count", label="how many jaws", why="three press a thin ring more than six"),
    ShopField(path="jaw_length_mm", label="jaws stand out", unit="mm", why="from the body, along Z"),
    ShopField(path="jaw_height_mm", label="jaws high", unit="mm", why="above the grip, on radius"),
    ShopField(path="bored_d_mm", label="bored to", unit="mm", empty="the blank", why="soft jaws"),
    ShopField(path="bored_depth_mm", label="bored deep", unit="mm", empty="through", why="the piece rests on the step"),
    ShopField(
        path="jaw_mass_kg",
        label="mass of one jaw",
        unit="kg",
        empty="unknown: no loss of grip computed",
        why="jaws fly outward as speed rises",
    ),
    ShopField(path="jaw_centre_r_mm", label="its centre of mass", unit="mm", empty="unknown", why="on radius"),
)
_COLLET = (
    ShopField(path="range_mm", label="closes on", unit="mm", form="span", why="diameters, from and to"),
    ShopField(path="opens_mm", label="opens by", unit="mm", why="on diameter: a wider head does not go in"),
    ShopField(path="cap_length_mm", label="cap stands out", unit="mm"),
    ShopField(path="cap_d_mm", label="cap", unit="mm"),
    ShopField(path="stop", label="stop inside", form="choice", options=YES_NO),
)
_MANDREL = (
    ShopField(path="d_mm", label="mandrel", unit="mm", why="the bore it opens in"),
    ShopField(path="length_mm", label="reaches in", unit="mm"),
)


_PUSH = ShopField(
    path="force_n",
    label="push on the pins",
    unit="N",
    empty="unknown: not judged",
    why="the centre has to give it; it carries the torque",
    heading="Limits",
)

_DRIVER = (
    ShopField(path="pins_d_mm", label="circle of the pins", unit="mm", why="the back face is wider", heading="Pins"),
    ShopField(path="pin_width_mm", label="pins wide", unit="mm", why="along the radius"),
    ShopField(path="pin_length_mm", label="pins stand out", unit="mm", why="room for a tool behind the part"),
)


def hold_fields(hold: Chuck | Collet | Mandrel | FaceDriver) -> tuple[ShopField, ...]:
    """Everything of a hold a person may type."""
    own = {"chuck": _CHUCK, "collet": _COLLET, "mandrel": _MANDREL, "driver": _DRIVER}[hold.kind]
    if isinstance(hold, FaceDriver):
        return (_PUSH, *(one for one in _HOLD if one.path not in ("force_n", "grip_length_mm")), *own)
    return (*_HOLD, *own, *(_jaw_sets(hold) if isinstance(hold, Chuck) else ()))


MOST_SETS = 4


def _jaw_sets(chuck: Chuck) -> list[ShopField]:
    """How many other sets of jaws there are, and each of them."""
    held = chuck.jaw_sets
    counts = [
        (str(n) if n else "none", (*held[:n], *(JawSet(name=f"set {i + 1}") for i in range(len(held), n))))
        for n in range(max(MOST_SETS, len(held)) + 1)
    ]
    why = "each is offered as a hold of its own, on this body"
    found = [ShopField(path="jaw_sets", label="other sets of jaws", form="choice", options=tuple(counts), why=why,
                       heading="Other jaws")]  # fmt: skip
    for index, one in enumerate(held):
        path = f"jaw_sets.{index}"
        found += [
            ShopField(path=f"{path}.name", label="name", form="text", heading=f"Jaws: {one.name}"),
            ShopField(path=f"{path}.jaws", label="jaws", form="choice", options=JAWS),
            ShopField(path=f"{path}.grip_range_mm", label="takes", unit="mm", form="span", empty="as the chuck"),
            ShopField(path=f"{path}.bored_d_mm", label="bored to", unit="mm", empty="the blank"),
            ShopField(path=f"{path}.bored_depth_mm", label="bored deep", unit="mm", empty="through"),
            ShopField(path=f"{path}.jaw_length_mm", label="jaws stand out", unit="mm"),
            ShopField(path=f"{path}.jaw_height_mm", label="jaws high", unit="mm"),
            ShopField(path=f"{path}.jaw_mass_kg", label="mass of one jaw", unit="kg", empty="as the chuck's"),
        ]
    return found


_CENTRE = (
    ShopField(path="max_rpm", label="speed limit", unit="rpm", why="of its bearings", heading="Centre"),
    ShopField(path="force_n", label="push along Z", unit="N", why="it supports, it does not hold"),
    ShopField(path="d_mm", label="body", unit="mm", why="what tools must keep clear of"),
    ShopField(path="point_length_mm", label="point long", unit="mm"),
    ShopField(path="body_length_mm", label="body long", unit="mm"),
    ShopField(path="largest_mouth_mm", label="fits mouths up to", unit="mm", why="the centre hole it sits in"),
)


def centre_fields(centre: object) -> tuple[ShopField, ...]:
    """Everything of a centre a person may type."""
    return _CENTRE
