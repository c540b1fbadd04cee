"""A machine and a hold as drawn in the shop: half outlines to scale, from the numbers that are known."""

import math
from dataclasses import dataclass
from typing import Literal

from shapely.affinity import scale

from toreuma.core.geometry.region import Region, box, region_from_points
from toreuma.core.geometry.workholding import holding_of, steady_solid
from toreuma.core.model import Carrier, Chuck, Collet, FaceDriver, FollowRest, Hold, Machine, SteadyRest

__all__ = ["ASSUMED", "Piece", "hold_picture", "machine_picture", "rest_picture"]

Look = Literal["machine", "hold", "bar", "carrier", "reach", "assumed", "steady"]


@dataclass(frozen=True)
class Piece:
    """``region`` lies above the axis, mm, Z 0 at the face of the main chuck's body; ``both`` draws it below as well."""

    look: Look
    region: Region
    label: str = ""
    both: bool = True


ASSUMED = {"spindle_bore_mm": 52.0, "travel_x_mm": 150.0, "travel_z_mm": 400.0, "chuck_d_mm": 200.0}
"""Sizes of the drawing, mm, where the machine does not say: drawn in broken lines, used for nothing else."""

HEAD_MM, CHUCK_MM, QUILL_MM = 240.0, 90.0, 60.0


def machine_picture(machine: Machine) -> list[Piece]:
    """Headstock, chuck, bar, carriers at their reference points and what they reach, second spindle and tailstock."""
    bore = machine.spindle_bore_mm or ASSUMED["spindle_bore_mm"]
    chuck_r = max(ASSUMED["chuck_d_mm"] / 2, 1.5 * bore / 2 + 20)
    head_r = max(chuck_r * 1.15, bore)
    found = [
        Piece("machine", box(-CHUCK_MM - HEAD_MM, bore / 2, -CHUCK_MM, head_r), "headstock"),
        Piece("hold", box(-CHUCK_MM, bore / 2, 0.0, chuck_r)),
        Piece(
            "bar" if machine.spindle_bore_mm else "assumed",
            box(-CHUCK_MM - HEAD_MM - 40, 0.0, 30.0, bore / 2),
            f"bar up to Ø{bore:g}" if machine.spindle_bore_mm else "bore of the spindle not known",
        ),
    ]
    right = max(carrier.reference_from_nose_mm for carrier in machine.carriers) + 120
    if machine.second is not None:
        found += _second(machine)
        right = machine.second.retracted_gap_mm + CHUCK_MM + HEAD_MM
    for carrier in machine.carriers:
        found += _carrier(machine, carrier)
    if machine.tailstock and machine.second is None:
        tip = right + 20
        cone = region_from_points([[tip, 0], [tip + 35, 20], [tip + 35 + QUILL_MM, 20], [tip + 35 + QUILL_MM, 0]])
        body = box(tip + 35 + QUILL_MM, 0.0, tip + 35 + QUILL_MM + 90, chuck_r * 0.7)
        found += [Piece("hold", cone), Piece("machine", body, "tailstock")]
    if machine.steady:
        z = min(carrier.reference_from_nose_mm for carrier in machine.carriers) / 2
        found.append(Piece("steady", box(z, bore / 2 + 5, z + 45, chuck_r), "steady"))
    return found


def _second(machine: Machine) -> list[Piece]:
    second = machine.second
    assert second is not None
    z = second.retracted_gap_mm
    bore = 0.8 * (machine.spindle_bore_mm or ASSUMED["spindle_bore_mm"])
    chuck_r = 0.85 * ASSUMED["chuck_d_mm"] / 2
    near = box(second.least_gap_mm, bore / 2, second.least_gap_mm + CHUCK_MM, chuck_r)
    return [
        Piece("assumed", near, "closest"),
        Piece("hold", box(z, bore / 2, z + CHUCK_MM, chuck_r)),
        Piece("machine", box(z + CHUCK_MM, bore / 2, z + CHUCK_MM + 0.8 * HEAD_MM, chuck_r * 1.15), "second spindle"),
    ]


def _carrier(machine: Machine, carrier: Carrier) -> list[Piece]:
    """The carrier with its tool point at the reference, and the field its travel reaches."""
    z, r = carrier.reference_from_nose_mm, carrier.reference_d_mm / 2
    run = carrier.stations * carrier.station_pitch_mm
    if carrier.kind == "turret":
        d = max(run / math.pi, 120.0)
        body = box(z + 20, r + 30, z + 140, r + 30 + d)
    elif carrier.kind == "gang plate":
        body = box(z + 20, r + 20, z + 70, r + 20 + run)
    else:
        body = region_from_points(
            [[z, r + 20], [z + 60, r + 90], [z + 60, r + 330], [z - 60, r + 330], [z - 60, r + 90]]
        )
    tool = box(z, r, z + 24, r + 60)
    below = carrier.side == "below"
    words = f"{carrier.name}, {carrier.stations} stations" + (", driven" if carrier.live is not None else "")
    travel_z = machine.travel_z_mm or ASSUMED["travel_z_mm"]
    travel_x = machine.travel_x_mm or ASSUMED["travel_x_mm"]
    look: Look = "reach" if machine.travel_x_mm and machine.travel_z_mm else "assumed"
    field = box(z - travel_z, r - travel_x, z, r)
    pieces = [
        Piece(look, field, both=False),
        Piece("carrier", tool, both=False),
        Piece("carrier", body, words, both=False),
    ]
    return [Piece(p.look, _flipped(p.region), p.label, both=False) for p in pieces] if below else pieces


def _flipped(region: Region) -> Region:
    found: Region = scale(region, 1, -1, origin=(0, 0))
    return found


def hold_picture(hold: Hold) -> list[Piece]:
    """A hold on the middle of its range, with the piece it holds."""
    if isinstance(hold, Chuck):
        low, high = hold.grip_range_mm or (0.2 * hold.body_d_mm, 0.5 * hold.body_d_mm)
        d = hold.bored_d_mm or min((low + high) / 2, 0.6 * hold.body_d_mm)
    elif isinstance(hold, Collet):
        d = 0.6 * hold.range_mm[1]
    elif isinstance(hold, FaceDriver):
        d = 1.5 * hold.around_d_mm
    else:
        d = hold.d_mm
    inside = hold.kind == "mandrel" or (isinstance(hold, Chuck) and hold.side == "inside")
    out, grip = hold.stick_out_mm, hold.grip_length_mm
    reach = out + (hold.length_mm if hold.kind == "mandrel" else 0.0 if hold.kind == "driver" else grip)
    low_r = d / 2 if inside else 0.0
    high_r = d / 2 + 12 if inside else d / 2
    piece = box(-reach, low_r, 0.0, high_r)
    holding = holding_of(hold, piece, 0.0)
    found = [Piece("machine", holding.body), Piece("hold", holding.grips), Piece("bar", piece, f"Ø{d:g}")]
    return [one for one in found if not one.region.is_empty]


def rest_picture(rest: SteadyRest | FollowRest) -> list[Piece]:
    """A rest round a piece in the middle of its range; a follow rest behind the nose of a tool."""
    d = sum(rest.range_mm) / 2
    out = 3.0 * max(d, 30.0)
    piece = box(-out, 0.0, 0.0, d / 2)
    if isinstance(rest, SteadyRest):
        around = steady_solid(rest.changed(z_mm=-out / 2), piece)
        return [Piece("bar", piece, f"Ø{d:g}"), Piece("steady", around, "steady")]
    nose = -0.6 * out
    place = nose + rest.behind_mm
    roller = box(place - rest.roller_mm / 2, d / 2, place + rest.roller_mm / 2, d / 2 + 2 * rest.roller_mm)
    tool = region_from_points([[nose, d / 2], [nose - 25, d / 2 + 6], [nose - 25, d / 2 + 45], [nose, d / 2 + 45]])
    return [
        Piece("bar", piece, f"Ø{d:g}"),
        Piece("steady", _flipped(roller), "follow rest", both=False),
        Piece("carrier", tool, both=False),
    ]
