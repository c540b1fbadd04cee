"""A whole run in the machine's own places: where both spindles and every carrier stand at any moment.

Places are (z, r) of the main spindle's side, mm. Carriers that come from below the axis have r below zero.
"""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from shapely.affinity import affine_transform, translate

from toreuma.core.geometry.elements import Arc, Point
from toreuma.core.geometry.region import Region, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Carrier, Job, Machine, Tool
from toreuma.core.motion import Motion
from toreuma.core.prove.together import Happening, Together
from toreuma.core.reach.beside import carrier_body
from toreuma.core.scene import Scene
from toreuma.core.simulate.rapids import timed_legs

__all__ = ["Leg", "Run", "Stand"]

FAR_MM = 1e4
"""So far from the axis a carrier's body is not cut off at it."""


@dataclass(frozen=True)
class Leg:
    """What one carrier does from ``start_s`` to ``end_s``: a move, or standing where a move has ended."""

    start_s: float
    end_s: float
    motion: Motion
    moves: bool

    def at(self, seconds: float) -> Point:
        """The programmed point, in places of the spindle the move is made at."""
        long = self.end_s - self.start_s
        share = (seconds - self.start_s) / long if self.moves and long > 0 else 1.0
        return self.motion.segment.at(min(max(share, 0.0), 1.0))


Place = tuple[float, float, float, float]
"""Along and across -1 or 1, and where to: what takes a tool from its programmed point to the machine's places."""


@dataclass(frozen=True, kw_only=True)
class _Bodies:
    """A tool and what carries it, from its programmed point."""

    body: Region
    cutting: Region
    solid: Region
    carried_by: Region


@dataclass(frozen=True, kw_only=True)
class Stand:
    """A tool at one moment; its bodies stand in the machine's places, ``tip`` is the programmed point there."""

    channel: int
    carrier: Carrier
    tool: Tool
    motion: Motion
    tip: Point
    bodies: _Bodies
    place: Place

    @cached_property
    def body(self) -> Region:
        return self._placed(self.bodies.body)

    @cached_property
    def cutting(self) -> Region:
        return self._placed(self.bodies.cutting)

    @cached_property
    def solid(self) -> Region:
        """All of the tool."""
        return self._placed(self.bodies.solid)

    @cached_property
    def carried_by(self) -> Region:
        """What carries the tool: the disc of a turret, the nose of a milling spindle."""
        return self._placed(self.bodies.carried_by)

    def _placed(self, region: Region) -> Region:
        along, across, z, r = self.place
        return affine_transform(region, [along, 0.0, 0.0, across, z, r])


class Run:
    """Both spindles and all carriers over the time of the programs.

    ``job`` is the whole job, ``scenes`` the first side's and the second side's, ``grip_z`` where the front of the
    second jaws stands when it grips.
    """

    def __init__(self, job: Job, scenes: tuple[Scene, Scene], ran: Together, grip_z: float) -> None:
        self.job, self.scenes, self.grip_z = job, scenes, grip_z
        self.seconds = ran.seconds
        self.happened = ran.happened
        self._back_z = scenes[0].profile.back_z
        self._shapes = {tool.station: (tool, shape_of(tool)) for tool in job.tools}
        self._reaches: dict[int, tuple[float, float, float, float]] = {}
        self._bodies: dict[int, _Bodies] = {}
        self._carriers = {tool.station: _carrier_of(job.machine.carrier_of(tool.station), tool) for tool in job.tools}
        self._legs = {channel: _legs(ran.happened, channel, ran.seconds, job.machine) for channel in ran.laid.times}
        self._starts = {channel: [leg.start_s for leg in legs] for channel, legs in self._legs.items()}

    @property
    def channels(self) -> tuple[int, ...]:
        return tuple(self._legs)

    def legs(self, channel: int) -> Sequence[Leg]:
        return self._legs[channel]

    # The second spindle

    @cached_property
    def _trips(self) -> list[tuple[float, float, float, float]]:
        """Start and end of every move of the second spindle, s, and from where to where, mm."""
        moves = [one for one in self.happened if one.mark is not None and one.mark.what == "second_to"]
        places = [one.mark.number for one in moves if one.mark is not None]
        before = places[-1:] + places[:-1]  # a run begins where it ends
        return [(m.start_s, m.end_s, a, b) for m, a, b in zip(moves, before, places, strict=True)]

    def second_at(self, seconds: float) -> float:
        """Where the front of the second jaws stands, mm."""
        place = self._trips[-1][3] if self._trips else self.grip_z
        for start, end, from_z, to_z in self._trips:
            if seconds < start:
                break
            share = min((seconds - start) / (end - start), 1.0) if end > start else 1.0
            place = from_z + share * (to_z - from_z)
        return place

    def zero_of_second(self, seconds: float) -> float:
        """Where Z 0 of the second side is in the machine's places."""
        return self._back_z + self.second_at(seconds) - self.grip_z

    def from_second(self, region: Region, seconds: float) -> Region:
        """What the second side sees, in the machine's places."""
        return affine_transform(region, [-1.0, 0.0, 0.0, 1.0, self.zero_of_second(seconds), 0.0])

    # The carriers

    def leg_at(self, channel: int, seconds: float) -> Leg | None:
        """What a channel's tool does at a time; None before its first move."""
        legs = self._legs[channel]
        index = bisect_right(self._starts[channel], seconds) - 1
        return legs[max(index, 0)] if legs else None

    def stand(self, channel: int, seconds: float) -> Stand | None:
        """A channel's tool in its place; None before it has one."""
        leg = self.leg_at(channel, seconds)
        return self.placed(channel, leg, seconds) if leg is not None else None

    def placed(self, channel: int, leg: Leg, seconds: float) -> Stand | None:
        """The tool of a leg in its place at a time."""
        known = self._shapes.get(leg.motion.station)
        if known is None:
            return None
        tool, _ = known
        carrier = self.job.machine.carrier_of(tool.station)
        z, r = leg.at(seconds)
        second = leg.motion.second
        along = -1.0 if second else 1.0
        across = -1.0 if carrier.side == "below" else 1.0
        at_z = self.zero_of_second(seconds) - z if second else z
        return Stand(
            channel=channel,
            carrier=carrier,
            tool=tool,
            motion=leg.motion,
            tip=(at_z, across * r),
            bodies=self._bodies_of(tool.station),
            place=(along, across, at_z, across * r),
        )

    def _bodies_of(self, station: int) -> _Bodies:
        if station not in self._bodies:
            shape = self._shapes[station][1]
            body, cutting = (translate(one, -shape.tip[0], -shape.tip[1]) for one in (shape.body, shape.cutting))
            carried_by = self._carriers[station]
            solid = union([body, cutting])
            self._bodies[station] = _Bodies(body=body, cutting=cutting, solid=solid, carried_by=carried_by)
        return self._bodies[station]

    def box(self, channel: int, leg: Leg, start: float, end: float) -> tuple[float, float, float, float] | None:
        """A box (z, r, z, r) round the way of a tool and its carrier from ``start`` to ``end``, in the machine."""
        known = self._shapes.get(leg.motion.station)
        if known is None:
            return None
        low_z, low_r, high_z, high_r = self._reach(leg.motion.station)
        bow = leg.motion.segment.length / 4 if leg.moves and isinstance(leg.motion.segment, Arc) else 0.0
        carrier = self.job.machine.carrier_of(known[0].station)
        corners = []
        for seconds in (start, end):
            z, r = leg.at(seconds)
            if leg.motion.second:
                zero = self.zero_of_second(seconds)
                corners.append((zero - z - high_z, zero - z - low_z, r + low_r, r + high_r))
            else:
                corners.append((z + low_z, z + high_z, r + low_r, r + high_r))
        z0, z1 = min(one[0] for one in corners) - bow, max(one[1] for one in corners) + bow
        r0, r1 = min(one[2] for one in corners) - bow, max(one[3] for one in corners) + bow
        return (z0, -r1, z1, -r0) if carrier.side == "below" else (z0, r0, z1, r1)

    def shape(self, station: int) -> ToolShape | None:
        """The shape of the tool in a station."""
        known = self._shapes.get(station)
        return known[1] if known is not None else None

    def _reach(self, station: int) -> tuple[float, float, float, float]:
        """Smallest z and r and largest of a tool and its carrier from its programmed point, mm."""
        if station not in self._reaches:
            shape = self._shapes[station][1]
            points = np.vstack([shape.core, *shape.bodies, *shape.ahead]) - np.array(shape.tip)
            low, high = points.min(axis=0) - shape.nose_radius, points.max(axis=0) + shape.nose_radius
            if not (carrier := self._carriers[station]).is_empty:
                bounds = np.array(carrier.bounds)
                low, high = np.minimum(low, bounds[:2]), np.maximum(high, bounds[2:])
            self._reaches[station] = float(low[0]), float(low[1]), float(high[0]), float(high[1])
        return self._reaches[station]


def _carrier_of(carrier: Carrier, tool: Tool) -> Region:
    """What carries a tool, from its programmed point: both halves, for carriers of two sides meet across the axis. A
    milling spindle's nose is surely as long as it is wide; how much of its head lies in line behind nobody has said."""
    return translate(carrier_body(carrier, tool, 0.0, FAR_MM, carrier.nose_d_mm), 0.0, -FAR_MM)


def _legs(happened: Sequence[Happening], channel: int, until_s: float, machine: Machine) -> list[Leg]:
    """Moves of a channel, and standing between them; rapids along the way their axes take."""
    found: list[Leg] = []
    for one in happened:
        motion = one.motion
        if one.channel != channel or motion is None:
            continue
        if found and one.start_s > found[-1].end_s:
            found.append(replace(found[-1], start_s=found[-1].end_s, end_s=one.start_s, moves=False))
        moves = not motion.event and one.end_s > one.start_s
        begin = one.start_s
        for share, leg in timed_legs(motion, machine) if moves else [(1.0, motion)]:
            end = one.start_s + share * (one.end_s - one.start_s)
            found.append(Leg(begin, end, leg, moves))
            begin = end
    if found and until_s > found[-1].end_s:
        found.append(replace(found[-1], start_s=found[-1].end_s, end_s=until_s, moves=False))
    return found
