"""How the blank is held."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.value import Name, Positive, Value

__all__ = ["Centre", "Chuck", "Collet", "FaceDriver", "Hold", "JawRelief", "JawSet", "Mandrel", "SecondHold"]

Amount = Annotated[float, Field(ge=0, le=1e6)]


class JawRelief(Value):
    """A step cut into the front of the jaws so that a tool gets close."""

    length_mm: Positive = Field(description="Along Z, from the front of the jaws")
    height_mm: Positive = Field(description="Radial height above the grip that is cut away")


class _Hold(Value):
    name: Name = ""
    stick_out_mm: Positive = Field(description="From the front of the hold to the front of the blank")
    grip_length_mm: Positive = Field(description="Length of blank inside the hold")
    body_d_mm: Positive
    body_length_mm: Positive = 80.0
    max_rpm: Positive = Field(description="Limit on the hold's own plate")
    tool_clearance_mm: Amount = Field(default=1.0, description="Smallest distance any tool keeps from the hold")
    force_n: Positive | None = Field(default=None, description="Grip at rest, the sum of all jaws")
    friction: Annotated[float, Field(gt=0, le=1)] | None = Field(default=None, description="Empty: by kind of jaw")
    safety: Annotated[float, Field(ge=1, le=10)] = Field(default=2.5, description="Wanted safety of the grip")
    bar_behind_mm: Amount = Field(default=0.0, description="Length of bar standing free behind the spindle")


class JawSet(Value):
    """One of several sets of jaws that go on a chuck."""

    name: Name = "soft jaws"
    jaws: Literal["hard", "soft"] = "soft"
    jaw_length_mm: Positive = 45.0
    jaw_height_mm: Positive = 28.0
    grip_range_mm: tuple[float, float] | None = None
    bored_d_mm: Positive | None = None
    bored_depth_mm: Positive | None = None
    jaw_mass_kg: Positive | None = None
    jaw_centre_r_mm: Positive | None = None


class Chuck(_Hold):
    """A jaw chuck. All lengths along Z are measured from the front of the jaws."""

    kind: Literal["chuck"] = "chuck"
    jaw_length_mm: Positive = Field(description="How far the jaws stand out of the chuck body")
    jaw_height_mm: Positive = Field(description="Radial height of the jaws above the grip")
    jaws: Literal["hard", "soft"] = "hard"
    jaw_count: int = Field(default=3, ge=2, le=6)
    jaw_mass_kg: Positive | None = Field(default=None, description="One base jaw with its top jaw")
    jaw_centre_r_mm: Positive | None = Field(default=None, description="Radius of a jaw's centre of mass")
    side: Literal["outside", "inside"] = Field(default="outside", description="Which side of the blank is gripped")
    grip_range_mm: tuple[float, float] | None = Field(default=None, description="Diameters the jaws can take")
    relief: JawRelief | None = None
    bored_d_mm: Positive | None = Field(default=None, description="Diameter soft jaws are bored to")
    bored_depth_mm: Positive | None = Field(default=None, description="Depth of that bore: the piece rests on its step")
    step_mm: Amount = Field(default=4.0, description="Radial height of the step behind the bore")
    opens_mm: Amount | None = Field(default=None, description="On diameter, from the grip; empty: by hand, all the way")
    jaw_sets: tuple[JawSet, ...] = Field(default=(), max_length=12, description="Other jaws there are for it")

    def with_jaws(self, other: JawSet) -> "Chuck":
        """The chuck with another set on it, as a hold of its own; what a set does not say stays the chuck's."""
        said = {name: getattr(other, name) for name in JawSet.model_fields if name != "name"}
        said = {name: value for name, value in said.items() if value is not None}
        return self.changed(**said, name=f"{self.name}, {other.name}"[:120], jaw_sets=())


class Collet(_Hold):
    """A collet closed by a cap; it grips nearly all round and loses little at speed."""

    kind: Literal["collet"] = "collet"
    range_mm: tuple[float, float] = Field(description="Diameters the collet closes on")
    cap_length_mm: Positive = Field(description="How far the cap stands out of the body")
    cap_d_mm: Positive = Field(description="Diameter of the cap at its front")
    stop: bool = Field(default=False, description="The blank rests against a stop inside")
    opens_mm: Amount = Field(default=1.0, description="On diameter, from the grip")


class Mandrel(_Hold):
    """An expanding mandrel in the bore: nothing stands outside the part but the body behind it."""

    kind: Literal["mandrel"] = "mandrel"
    d_mm: Positive
    length_mm: Positive = Field(description="How far it reaches into the bore")


class FaceDriver(_Hold):
    """Pins that bite into the back face of a sawn piece while a centre pushes it on them: the whole outside is free.

    ``force_n`` is the push on the pins; the back of the blank rests on them, whatever the stick-out says.
    """

    kind: Literal["driver"] = "driver"
    pins_d_mm: Positive = Field(description="Circle on which the pins bite")
    pin_width_mm: Positive = Field(default=6.0, description="Of a pin, along the radius")
    pin_length_mm: Positive = Field(default=14.0, description="They stand out of the body by it")

    @property
    def around_d_mm(self) -> float:
        """Circle round the pins."""
        return self.pins_d_mm + self.pin_width_mm


class Centre(Value):
    """A live centre in the front of the piece. It supports, it does not hold."""

    name: Name = ""
    d_mm: Positive = Field(description="Diameter of the body")
    point_length_mm: Positive = Field(default=20.0, description="Length of the 60 degree point")
    body_length_mm: Positive = 80.0
    largest_mouth_mm: Positive = Field(default=20.0, description="Largest centre hole it fits")
    max_rpm: Positive = 5000.0
    force_n: Amount = Field(default=2000.0, description="Push along Z")


class SecondHold(Value):
    """The surface the second side is held by, and how much of it the hold needs."""

    element: int = Field(ge=0, description="Index of the outside element to grip")
    begins_mm: Amount = Field(default=0.0, description="From the front edge of the surface to where the grip begins")
    grip_length_mm: Positive
    clearance_mm: Amount = Field(default=1.0, description="Kept free between the jaws and the next shoulder")
    jaws: Literal["hard", "soft"] = "soft"
    range_mm: tuple[float, float] | None = Field(default=None, description="Diameters the jaws can take")


Hold = Annotated[Chuck | Collet | Mandrel | FaceDriver, Field(discriminator="kind")]
