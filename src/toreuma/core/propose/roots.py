"""Where a number reaches a limit, and where something is least."""

import math
from collections.abc import Callable

__all__ = ["CLOSE", "TIGHT", "golden", "largest"]

MOST_STEPS = 24
ROOM = 1.08
"""A guess is taken to be right within this factor."""

TIGHT, CLOSE = 1e-9, 2e-4
"""A share this little above 1 still keeps its limit; limits are found to this share of the number."""


def largest(low: float, high: float, share: Callable[[float], float], near: float | None = None) -> float:
    """The largest number whose share of the limits is at most 1; ``low`` where none is.

    Shares are mostly powers of the number, so straight lines through logarithms close in quickly (the Illinois rule
    keeps both ends moving). ``near`` is where it may be: it is looked for on both sides of that first.
    """
    if high <= low:
        return low
    about = _about(low, high, share, near) if near is not None else None
    if about is None:
        about = math.log(low), math.log(high), _log(share(low)), _log(share(high))
        if about[3] <= TIGHT:
            return high
        if about[2] > TIGHT:
            return low
    a, b, fa, fb = about
    for _ in range(MOST_STEPS):
        steep = fb - fa
        at = (a + b) / 2 if not math.isfinite(steep) or steep < 1e-12 else a - fa * (b - a) / steep
        value = _log(share(math.exp(at)))
        if value > TIGHT:
            b, fb, fa = at, value, fa / 2
        else:
            a, fa, fb = at, value, fb / 2
            if value > -CLOSE:  # at the crossing, or on a level stretch just below it
                a, b, fa, fb, over = _step_on(a, b, fa, fb, share)
                if over:
                    break
        if b - a < CLOSE:
            break
    return math.exp(a)


def _about(
    low: float, high: float, share: Callable[[float], float], near: float
) -> tuple[float, float, float, float] | None:
    """Both sides of a guess, with their shares, where the limit lies between them."""
    if not low < near / ROOM or not near * ROOM < high:
        return None
    over = _log(share(near * ROOM))
    if over <= TIGHT:
        return None
    under = _log(share(near / ROOM))
    return (math.log(near / ROOM), math.log(near * ROOM), under, over) if under <= TIGHT else None


def golden(a: float, b: float, worth: Callable[[float], float], steps: int) -> float:
    """Where something that falls and then rises is least: golden section."""
    ratio = (math.sqrt(5) - 1) / 2
    c, d = b - ratio * (b - a), a + ratio * (b - a)
    at_c, at_d = worth(c), worth(d)
    for _ in range(steps):
        if at_c < at_d:
            b, d, at_d = d, c, at_c
            c = b - ratio * (b - a)
            at_c = worth(c)
        else:
            a, c, at_c = c, d, at_d
            d = a + ratio * (b - a)
            at_d = worth(d)
    return (a + b) / 2


def _step_on(
    a: float, b: float, fa: float, fb: float, share: Callable[[float], float]
) -> tuple[float, float, float, float, bool]:
    """A little step beyond a place near the limit; whether it is over. If not, the rest is halved."""
    at = min(a + 4 * CLOSE, b)
    value = _log(share(math.exp(at)))
    if value > TIGHT:
        return a, at, fa, value, True
    middle = (at + b) / 2
    value = _log(share(math.exp(middle)))
    return (at, middle, fa, value, False) if value > TIGHT else (middle, b, value, fb, False)


def _log(share: float) -> float:
    return math.log(share) if 0 < share < math.inf else (math.inf if share > 0 else -40.0)
