"""What may follow a word in its block, the most usual first."""

from toreuma.core.cycle_words import CYCLE_WORDS, letters_of
from toreuma.core.dialect import Dialect

__all__ = ["following"]

PLACES = (("X", "diameter"), ("Z", "along the axis"))
FOLLOWING: dict[str, tuple[tuple[str, str], ...]] = {
    "": (*PLACES, ("F", "feed"), ("S", "speed"), ("T", "tool"), ("G", "how to go"), ("M", "what the machine does")),
    "rapid": PLACES,
    "line": (*PLACES, ("F", "feed"), (",R", "rounding at its end"), (",C", "chamfer at its end"), (",A", "angle")),
    "arc_clockwise": (*PLACES, ("R", "radius"), ("I", "centre across"), ("K", "centre along"), ("F", "feed")),
    "arc_counter_clockwise": (*PLACES, ("R", "radius"), ("I", "centre across"), ("K", "centre along"), ("F", "feed")),
    "thread": (*PLACES, ("F", "lead"), ("Q", "angle at which it begins")),
    "dwell": (("X", "seconds"), ("P", "thousandths of a second")),
    "surface_speed": (("S", "surface speed"), ("M", "way of turning")),
    "fixed_speed": (("S", "turns a minute"), ("M", "way of turning")),
    "clamp": (("S", "largest turns a minute"),),
    "call": (("P", "number of the program"), ("L", "how often")),
}


def following(name: str, dialect: Dialect) -> tuple[tuple[str, str], ...]:
    """Letters that may stand behind a word of this meaning, each with what it says there; a letter that a cycle has in
    both its blocks stands twice."""
    forms = dialect.forms_of(name)
    if not forms:
        return FOLLOWING.get(name, FOLLOWING[""])
    last = letters_of(forms[0])[::-1]
    return tuple((letter, CYCLE_WORDS[what]) for letters in last for letter, what in letters.items())
