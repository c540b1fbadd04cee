"""The machine from the front, to scale: chucks, and where each carrier waits, as blocks along Z and across it."""

import math
from dataclasses import dataclass
from typing import Literal

from toreuma.core.channels.transfer import Transfer
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job
from toreuma.core.scene import Scene

__all__ = ["Outline", "machine_blocks"]

HEAD_MM, SPINDLE_MM = 120.0, 240.0
"""Width of a turret's disc along Z, and length of a milling spindle: only their places are known."""


@dataclass(frozen=True, kw_only=True)
class Outline:
    """``z`` and ``r`` from low to high, mm; below the axis ``r`` is negative. ``stands`` says what it does there."""

    name: str
    kind: Literal["chuck", "part", "carrier"]
    z: tuple[float, float]
    r: tuple[float, float]
    stands: str = ""


def machine_blocks(job: Job, scene: Scene, transfer: Transfer) -> tuple[Outline, ...]:
    """Everything of the machine that could meet, with the second spindle standing back."""
    found = [_round("main spindle", scene.chuck, 0.0)]
    found.append(Outline(name="part", kind="part", z=_along(transfer.piece, 0.0), r=(-scene.stock_r, scene.stock_r)))
    found.append(_round("second spindle", transfer.body, transfer.back_mm, "stands back"))
    face = float(scene.chuck.bounds[2]) if not scene.chuck.is_empty else scene.jaw_face_z
    for carrier in job.machine.carriers:
        waits_at = transfer.settings.park_d_mm
        near = (waits_at if waits_at is not None else carrier.reference_d_mm) / 2
        z = face + carrier.reference_from_nose_mm
        disc = carrier.stations * carrier.station_pitch_mm / math.pi
        wide, high = (HEAD_MM, disc) if carrier.kind == "turret" else (HEAD_MM, SPINDLE_MM)
        r = (near, near + high) if carrier.side == "above" else (-near - high, -near)
        found.append(
            Outline(
                name=carrier.name,
                kind="carrier",
                z=(z - wide / 2, z + wide / 2),
                r=r,
                stands=f"channel {carrier.channel}",
            )
        )
    return tuple(found)


def _along(region: Region, by: float) -> tuple[float, float]:
    return float(region.bounds[0]) + by, float(region.bounds[2]) + by


def _round(name: str, region: Region, by: float, stands: str = "") -> Outline:
    r = float(region.bounds[3]) if not region.is_empty else 0.0
    return Outline(name=name, kind="chuck", z=_along(region, by) if r else (by, by), r=(-r, r), stands=stands)
