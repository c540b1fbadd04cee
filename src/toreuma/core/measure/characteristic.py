"""One thing of a drawing that is measured or looked at."""

from dataclasses import dataclass
from typing import Literal

__all__ = ["Characteristic", "Quantity"]

Quantity = Literal["diameter", "length", "depth", "width", "wires", "gauge", "finish", "angle", "edge"]
"""What kind of thing it is, which says what measures it. A ``gauge`` goes or does not; an ``edge`` is looked at."""


@dataclass(frozen=True, kw_only=True)
class Characteristic:
    """``key`` stays while the drawing stays; ``row`` is the key of the surface in the verdict, which knows who cut it.

    ``nominal`` and limits are mm, of a finish µm, of an angle degrees; None where the drawing says nothing.
    ``at`` is a place (z, r) on it; ``ends_z`` where a cylinder runs along Z, or a length from where to where.
    ``from_where`` says where the limits come from; ``means`` by what it is measured, ``uncertainty_um`` how well,
    ``often`` when.
    """

    key: str
    row: str
    number: int
    what: str
    quantity: Quantity
    side: str
    nominal: float | None
    lower: float | None = None
    upper: float | None = None
    at: tuple[float, float] = (0.0, 0.0)
    ends_z: tuple[float, float] | None = None
    from_where: str = ""
    means: str = ""
    uncertainty_um: float | None = None
    often: str = ""
    note: str = ""

    @property
    def unit(self) -> str:
        """Its internal unit as `toreuma.core.units` names it."""
        return {"finish": "um", "angle": "deg"}.get(self.quantity, "mm")

    @property
    def tolerance(self) -> float | None:
        """Width of the limits; None where there are not two."""
        return None if self.lower is None or self.upper is None else self.upper - self.lower

    @property
    def is_sized(self) -> bool:
        """A number comes out when it is measured."""
        return self.quantity not in ("gauge", "edge")

    @property
    def aim(self) -> float | None:
        """What the program aims at: the middle of the limits, or the drawn size."""
        if self.lower is not None and self.upper is not None:
            return (self.lower + self.upper) / 2
        return self.nominal

    def within(self, found: float) -> bool:
        """Whether a size lies within what limits there are."""
        return (self.lower is None or found >= self.lower) and (self.upper is None or found <= self.upper)
