"""One family of errors, each a clear line for the person: where, what, how to mend."""

import re

__all__ = [
    "Cancelled",
    "ImportFault",
    "JobError",
    "PartError",
    "ProgramError",
    "StandardError",
    "ToreumaError",
    "UnitError",
]


MOST_LETTERS = 300
_CONTROL = re.compile("[\x00-\x1f\x7f-\x9f\u2028\u2029\u202a-\u202e\u2066-\u2069\ud800-\udfff]")
"""Ends of lines, what turns the way of writing round, and halves of characters."""


def _one_line(text: str) -> str:
    """What came from outside may be of any length and of many lines; what is said of it is one that can be read."""
    if len(text) > MOST_LETTERS:
        text = f"{text[: MOST_LETTERS - 40]} … {text[-30:]}"
    return _CONTROL.sub(" ", text)


class ToreumaError(Exception):
    """Something the person can mend. Prints as ``WHERE: WHAT; HOW TO MEND``."""

    def __init__(self, where: str, what: str, cure: str) -> None:
        where, what, cure = (_one_line(text) for text in (where, what, cure))
        super().__init__(f"{where}: {what}; {cure}")
        self.where = where
        self.what = what
        self.cure = cure


class JobError(ToreumaError):
    """A job file or a job value that cannot be used."""


class PartError(JobError):
    """A part that cannot be built. ``section`` is ``outside``, ``inside`` or ``features``; ``element`` counts its
    entries from 0; -1 is the whole section."""

    def __init__(self, element: int, field: str, what: str, cure: str, section: str = "outside") -> None:
        where = f"part.{section}[{element}].{field}" if element >= 0 else f"part.{section}"
        super().__init__(where.removesuffix("."), what, cure)
        self.element = element
        self.field = field
        self.section = section


class ImportFault(JobError):
    """A drawing or model that cannot be turned into a part."""


class ProgramError(ToreumaError):
    """Program text that cannot be read, or a dialect that cannot write what is asked."""


class StandardError(ToreumaError):
    """A designation no standard here knows, or a size outside its tables."""


class UnitError(ToreumaError):
    """Typed text that is not a quantity of the wanted kind."""


class Cancelled(Exception):
    """Work was stopped because its result is no longer wanted."""
