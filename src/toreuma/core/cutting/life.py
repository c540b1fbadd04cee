"""Tool life by the extended Taylor equation, against the life the starting speeds are meant for."""

from toreuma.core.cutting.evidence import Evidence, Input

__all__ = ["MEANT_MIN", "economic_life_min", "exponent", "fastest_life_min", "relative_life_min", "speed_for_life"]

MEANT_MIN = 15.0
"""Minutes of cutting the starting speeds are meant for: the usual base of makers' tables."""

EXPONENTS = {"high-speed steel": 0.125, "coated carbide": 0.25, "uncoated carbide": 0.22, "ceramic": 0.4}
"""m of vc T^m = C: typical literature values."""

FEED_EXPONENT, DEPTH_EXPONENT = 0.35, 0.15
"""a and b of vc T^m f^a ap^b = C: typical for turning with carbide."""

SOURCE = "extended Taylor equation, exponents typical (machining textbooks); an estimate"


def exponent(tool_material: str) -> float:
    """m of vc T^m = C for a tool material."""
    return EXPONENTS.get(tool_material, 0.25)


def fastest_life_min(m: float, change_min: float) -> float:
    """Life for the highest output, min: T = (1/m - 1) t_change (Taylor)."""
    return (1 / m - 1) * change_min


def economic_life_min(m: float, change_min: float, edge_cost: float, cost_per_min: float) -> float:
    """Life for the lowest cost, min: T = (1/m - 1) (t_change + edge cost / cost per minute) (Taylor)."""
    return (1 / m - 1) * (change_min + edge_cost / cost_per_min)


def speed_for_life(c: float, m: float, life_min: float) -> float:
    """Surface speed for a life: vc = C / T^m."""
    return float(c / life_min**m)


def relative_life_min(
    tool_material: str, vc: float, meant_vc: float, feed: float, meant_feed: float, ap: float, meant_ap: float
) -> Evidence:
    """Minutes of cutting, from how far speed (m/min), feed (mm/rev) and depth (mm) lie from what they are meant to be.

    ``meant_*`` are the starting speed and the middle of the chip window. All values are positive.
    """
    m = exponent(tool_material)
    shares = (meant_vc / vc) * (meant_feed / feed) ** FEED_EXPONENT * (meant_ap / ap) ** DEPTH_EXPONENT
    return Evidence(
        "life of an edge",
        "T",
        MEANT_MIN * shares ** (1 / m),
        "min",
        formula="T = 15 min · ((vc0/vc) (f0/f)^0.35 (ap0/ap)^0.15)^(1/m)",
        source=SOURCE,
        inputs=(
            Input("surface speed", "vc", vc, "m/min"),
            Input("meant for", "vc0", meant_vc, "m/min"),
            Input("feed", "f", feed, "mm/rev"),
            Input("middle of the window", "f0", meant_feed, "mm/rev"),
        ),
    )
