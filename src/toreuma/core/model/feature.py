"""What a turned profile carries: grooves, reliefs, threads, axial holes, and the milled extras."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.value import Length, Name, Positive, Value

__all__ = [
    "AxialHole",
    "CentreHole",
    "FaceGroove",
    "Feature",
    "Flats",
    "Groove",
    "HolePattern",
    "Knurl",
    "Relief",
    "Slot",
    "ThreadFeature",
    "is_milled",
]

Side = Literal["outside", "inside"]
End = Literal["front", "back"]
Amount = Annotated[float, Field(ge=0, le=1e5)]
Angle = Annotated[float, Field(ge=0, lt=90)]


class Groove(Value):
    """A groove round the outside or in a bore. A leaning wall makes a V; what is left of the width is the floor."""

    kind: Literal["groove"] = "groove"
    side: Side = "outside"
    z_mm: Length = Field(description="Z of the edge nearer the front")
    width_mm: Positive = Field(description="Width at the surface")
    d_mm: Amount = Field(description="Diameter of the floor")
    wall_deg: Angle = Field(default=0.0, description="How far each wall leans from square to the axis")
    floor_round_mm: Amount = 0.0
    edge_break_mm: Amount = 0.0
    name: Name = ""


class FaceGroove(Value):
    """A ring groove in a face."""

    kind: Literal["face_groove"] = "face_groove"
    end: End = "front"
    d_mm: Positive = Field(description="Diameter of the outer wall")
    width_mm: Positive = Field(description="Width on radius")
    depth_mm: Positive
    wall_deg: Angle = 0.0
    floor_round_mm: Amount = 0.0
    name: Name = ""


class Relief(Value):
    """An undercut in the inner corner at ``z_mm``, on the side of the corner that ``toward`` names.

    Form E sets the cylinder back, forms F, G (short) and H (well rounded) the face as well (DIN 509); ``thread`` is a
    run-out groove (DIN 76).
    """

    kind: Literal["relief"] = "relief"
    side: Side = "outside"
    form: Literal["E", "F", "G", "H", "thread"] = "E"
    z_mm: Length = Field(description="Z of the shoulder the relief stands at")
    toward: End = Field(default="front", description="Which way the relieved cylinder lies from the shoulder")
    length_mm: Positive = Field(description="Length along the cylinder (f of the standard)")
    depth_mm: Positive = Field(description="Depth below the cylinder, on radius (t1)")
    face_depth_mm: Amount = Field(default=0.0, description="Depth into the shoulder (t2; not form E)")
    radius_mm: Positive
    name: Name = ""


class ThreadFeature(Value):
    """A thread on a cylinder of the outside or the bore."""

    kind: Literal["thread"] = "thread"
    side: Side = "outside"
    designation: Name
    from_z_mm: Length = Field(description="Where the thread starts, the end nearer the front")
    length_mm: Positive = Field(description="Length of full thread")
    entry: End = Field(default="front", description="The end its mate goes on from; it runs out at the other")
    name: Name = ""

    @property
    def taper_sign(self) -> float:
        """Which way an outside taper thread grows along Z: 1 toward the back, -1 toward the front."""
        return 1.0 if self.entry == "front" else -1.0

    def gauge_z_mm(self, gauge_mm: float) -> float:
        """The gauge plane, so far behind the end the mate goes on from."""
        return self.from_z_mm - gauge_mm if self.entry == "front" else self.from_z_mm - self.length_mm + gauge_mm


class AxialHole(Value):
    """A drilled hole on the axis."""

    kind: Literal["axial_hole"] = "axial_hole"
    end: End = "front"
    d_mm: Positive
    depth_mm: Positive | None = Field(default=None, description="To the full diameter; empty: through")
    point_deg: float = Field(default=118.0, gt=30, le=180, description="Point angle of the bottom; 180 is flat")
    thread: Name = Field(default="", description="Thread tapped into it, empty for none")
    thread_length_mm: Positive | None = None
    name: Name = ""


class CentreHole(Value):
    """A 60 degree centre for a centre to sit in (ISO 6411): plain (A), with a guarding cone (B), with an arc (R)."""

    kind: Literal["centre_hole"] = "centre_hole"
    end: End = "front"
    form: Literal["A", "B", "R"] = "A"
    d_mm: Positive = Field(description="Diameter of the pilot")
    mouth_d_mm: Positive = Field(description="Diameter at the face")
    name: Name = ""


class HolePattern(Value):
    """Holes beside the axis: on a circle in a face, or square to the axis round the outside."""

    kind: Literal["holes"] = "holes"
    on: Literal["front", "back", "outside"] = "front"
    count: int = Field(default=1, ge=1, le=720)
    d_mm: Positive
    depth_mm: Positive | None = Field(default=None, description="Empty: through")
    circle_d_mm: Amount = Field(default=0.0, description="Pitch circle, for holes in a face")
    z_mm: Length = Field(default=0.0, description="Place along Z, for holes round the outside")
    start_deg: float = Field(default=0.0, ge=-360, le=360)
    step_deg: float | None = Field(default=None, description="Empty: spread evenly")
    thread: Name = ""
    thread_length_mm: Positive | None = Field(default=None, description="Of full thread; empty: as deep as a tap goes")
    name: Name = ""


class Flats(Value):
    """Flats parallel to the axis: one, a pair for a wrench, or a polygon."""

    kind: Literal["flats"] = "flats"
    count: int = Field(default=2, ge=1, le=60)
    distance_mm: Positive = Field(description="From the axis to each flat; half the size across flats")
    from_z_mm: Length = Field(description="The end nearer the front")
    to_z_mm: Length
    start_deg: float = Field(default=0.0, ge=-360, le=360)
    name: Name = ""


class Slot(Value):
    """A straight slot or a pocket: a keyway along the outside or the bore, or one in a face."""

    kind: Literal["slot"] = "slot"
    on: Literal["front", "back", "outside", "inside"] = "outside"
    width_mm: Positive
    depth_mm: Positive = Field(description="From the surface, on radius, or along Z for a face")
    from_z_mm: Length = 0.0
    to_z_mm: Length = 0.0
    length_mm: Amount = Field(default=0.0, description="For a slot in a face; 0: right across")
    count: int = Field(default=1, ge=1, le=60)
    start_deg: float = Field(default=0.0, ge=-360, le=360)
    round_ends: bool = True
    corner_radius_mm: Amount = Field(default=0.0, description="Of a pocket's corners, where its ends are not round")
    off_mm: Amount = Field(default=0.0, description="From the axis to the middle of one in a face")
    name: Name = ""


class Knurl(Value):
    """A knurled cylinder of the outside (DIN 82): its diameter on the drawing is that over the raised ridges."""

    kind: Literal["knurl"] = "knurl"
    form: Literal["RAA", "RGE"] = Field(default="RAA", description="Ridges along the axis, or crossing, points raised")
    pitch_mm: Positive = Field(default=0.8, description="From ridge to ridge, square to them")
    from_z_mm: Length = Field(description="The end nearer the front")
    length_mm: Positive
    name: Name = ""


Feature = Annotated[
    Groove | FaceGroove | Relief | ThreadFeature | Knurl | AxialHole | CentreHole | HolePattern | Flats | Slot,
    Field(discriminator="kind"),
]


def is_milled(feature: object) -> bool:
    """Not round: cut with a driven tool."""
    return isinstance(feature, HolePattern | Flats | Slot)
