"""The sharp outline of an insert, turned so that its leading edge lies as its holder holds it."""

import math

import numpy as np

from toreuma.core.geometry.elements import Points
from toreuma.core.model.tool import Insert

__all__ = ["bisector", "corner_deg", "outline", "tip_to_centre"]

SIDES = {"T": 3, "S": 4, "P": 5, "H": 6, "O": 8}
TINY = 1e-9


def corner_deg(insert: Insert) -> float:
    """Corner angle of the sharp outline."""
    if insert.shape in SIDES:
        return 180.0 - 360.0 / SIDES[insert.shape]
    if insert.shape in "RL":
        return 90.0
    return 80.0 if insert.shape == "W" else insert.included_angle_deg


def bisector(insert: Insert, lead: float) -> Points:
    """Unit vector from the working corner into the insert."""
    angle = lead - math.radians(corner_deg(insert)) / 2
    return np.array([math.cos(angle), math.sin(angle)])


def tip_to_centre(insert: Insert, inset_mm: float) -> float:
    """How far the corner moves along the bisector when all edges move inward by ``inset_mm``."""
    return 0.0 if insert.shape == "R" else inset_mm / math.sin(math.radians(corner_deg(insert)) / 2)


def outline(insert: Insert, inset_mm: float, lead: float) -> Points:
    """Corners with all edges moved inward by ``inset_mm``, shape (n, 2): working corner first, at the origin.

    ``lead`` is the direction of the leading edge seen from the working corner, from +z toward +r, in radians;
    the insert lies on its clockwise side.
    """
    inradius = insert.ic_mm / 2 - inset_mm
    if insert.shape == "R":
        if inradius <= TINY:
            return np.zeros((1, 2))
        angle = np.linspace(0, 2 * math.pi, 24, endpoint=False)
        return np.column_stack([np.cos(angle), np.sin(angle)]) * inradius
    corner = math.radians(corner_deg(insert))
    if insert.shape in "LABK":
        return _parallelogram(corner, insert.edge_length_mm or 2 * insert.ic_mm, inradius, inset_mm, lead)
    if insert.shape == "W":
        return _trigon(inradius, lead)
    if insert.shape in SIDES:
        return _regular(SIDES[insert.shape], inradius, lead)
    side = 2 * inradius / math.sin(corner)
    spans = [(lead, side), (lead - corner / 2, 2 * side * math.cos(corner / 2)), (lead - corner, side)]
    return np.array([(0.0, 0.0), *((length * math.cos(a), length * math.sin(a)) for a, length in spans)])


def _parallelogram(corner: float, edge: float, inradius: float, inset: float, lead: float) -> Points:
    """Longer edge leading; the shorter edges move inward too."""
    long = edge - 2 * inset / math.sin(corner) if edge > 0 else 0.0
    short = 2 * inradius / math.sin(corner)
    a = np.array([math.cos(lead), math.sin(lead)]) * long
    b = np.array([math.cos(lead - corner), math.sin(lead - corner)]) * short
    return np.array([np.zeros(2), a, a + b, b])


def _regular(sides: int, inradius: float, lead: float) -> Points:
    edge = 2 * inradius * math.tan(math.pi / sides)
    points, at, heading = [np.zeros(2)], np.zeros(2), lead
    for _ in range(sides - 1):
        at = at + edge * np.array([math.cos(heading), math.sin(heading)])
        points.append(at)
        heading -= 2 * math.pi / sides
    return np.array(points)


def _trigon(inradius: float, lead: float) -> Points:
    """Three corners of 80 degrees and three of 160 between them, six equal edges."""
    edge = inradius * (1 / math.tan(math.radians(40)) + 1 / math.tan(math.radians(80)))
    points, at, heading = [np.zeros(2)], np.zeros(2), lead
    for index in range(5):
        at = at + edge * np.array([math.cos(heading), math.sin(heading)])
        points.append(at)
        heading -= math.radians(20 if index % 2 == 0 else 100)
    return np.array(points)
