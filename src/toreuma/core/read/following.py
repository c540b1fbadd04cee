"""What may follow a word in its block, the most usual first."""

__all__ = ["following"]

PLACES = (("X", "diameter"), ("Z", "along the axis"))
FOLLOWING: dict[str, tuple[tuple[str, str], ...]] = {
    "": (*PLACES, ("F", "feed"), ("S", "speed"), ("T", "tool"), ("G", "how to go"), ("M", "what the machine does")),
    "rapid": PLACES,
    "line": (*PLACES, ("F", "feed"), (",R", "rounding at its end"), (",C", "chamfer at its end"), (",A", "angle")),
    "arc_clockwise": (*PLACES, ("R", "radius"), ("I", "centre across"), ("K", "centre along"), ("F", "feed")),
    "arc_counter_clockwise": (*PLACES, ("R", "radius"), ("I", "centre across"), ("K", "centre along"), ("F", "feed")),
    "thread": (*PLACES, ("F", "lead"), ("Q", "angle at which it begins")),
    "thread_cycle": (*PLACES, ("R", "taper on radius"), ("F", "lead")),
    "turn_cycle": (*PLACES, ("R", "taper on radius"), ("F", "feed")),
    "face_cycle": (*PLACES, ("R", "taper along Z"), ("F", "feed")),
    "dwell": (("X", "seconds"), ("P", "thousandths of a second")),
    "surface_speed": (("S", "surface speed"), ("M", "way of turning")),
    "fixed_speed": (("S", "turns a minute"), ("M", "way of turning")),
    "clamp": (("S", "largest turns a minute"),),
    "rough_cycle": (("P", "first block of the contour"), ("Q", "last block of the contour"),
                    ("U", "depth, or allowance on diameter"), ("W", "allowance along Z"), ("R", "retract"),
                    ("F", "feed")),
    "finish_cycle": (("P", "first block of the contour"), ("Q", "last block of the contour")),
    "groove_cycle": (*PLACES, ("P", "peck in X"), ("Q", "step in Z"), ("R", "retract"), ("F", "feed")),
    "peck_cycle": (("Z", "bottom"), ("R", "from the start to where it begins"), ("Q", "peck"), ("P", "dwell"),
                   ("F", "feed")),
    "tap_cycle": (("Z", "bottom"), ("R", "from the start to where it begins"), ("F", "lead")),
    "call": (("P", "number of the program"), ("L", "how often")),
}  # fmt: skip


def following(name: str) -> tuple[tuple[str, str], ...]:
    """Letters that may stand behind a word of this meaning, each with what it says there."""
    return FOLLOWING.get(name, FOLLOWING[""])
