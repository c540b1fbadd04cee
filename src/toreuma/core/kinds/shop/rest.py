"""What the shop asks of a steady or a follow rest."""

from toreuma.core.kinds.shop.field import ShopField
from toreuma.core.model import FollowRest, SteadyRest

__all__ = ["rest_fields"]

_EVERY = (
    ShopField(path="range_mm", label="takes", unit="mm", form="span", why="diameters its rollers close on",
              heading="Rollers"),
    ShopField(path="roller_mm", label="rollers wide", unit="mm", why="the band they run on is wider"),
    ShopField(path="max_rpm", label="speed limit", unit="rpm", why="of its rollers; never exceeded"),
)  # fmt: skip

_STEADY = (
    ShopField(path="z_mm", label="usual place, Z", unit="mm", why="a job says where it stands", heading="Frame"),
    ShopField(path="frame_mm", label="frame long", unit="mm", why="what tools must keep clear of"),
    ShopField(path="frame_d_mm", label="frame outside", unit="mm"),
    ShopField(path="arm_mm", label="rollers stand in", unit="mm", why="from the frame, on radius"),
)

_FOLLOW = (ShopField(path="behind_mm", label="behind the nose", unit="mm", why="it runs on what was just turned"),)


def rest_fields(rest: SteadyRest | FollowRest) -> tuple[ShopField, ...]:
    """Everything of a rest a person may type."""
    return (*_EVERY, *(_STEADY if isinstance(rest, SteadyRest) else _FOLLOW))
