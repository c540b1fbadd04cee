"""A number together with why it is what it is."""

from dataclasses import KW_ONLY, asdict, dataclass

__all__ = ["Evidence", "Input", "Limit"]


@dataclass(frozen=True)
class Input:
    """A quantity that went into a formula; ``unit`` is an internal unit of `toreuma.core.units`."""

    label: str
    symbol: str
    number: float
    unit: str


@dataclass(frozen=True)
class Limit:
    """A bound that was tried; ``bit`` marks the one that decided.

    ``of`` names the kind of limit it comes from; ``least``: the number has to stay above it.
    """

    label: str
    number: float
    unit: str
    _: KW_ONLY
    bit: bool = False
    of: str = ""
    least: bool = False


@dataclass(frozen=True)
class Evidence:
    """A value, and because: inputs, formula, source, limits tried and the one that bit.

    For people: nothing reads ``number`` back to compute with it. ``typable``: a person may fix it, and ``pinned`` says
    that somebody has; ``proposed`` is what would stand here then.
    """

    name: str
    symbol: str
    number: float
    unit: str
    _: KW_ONLY
    formula: str = ""
    source: str = ""
    inputs: tuple[Input, ...] = ()
    limits: tuple[Limit, ...] = ()
    measured_on: str = ""
    typable: bool = False
    pinned: bool = False
    proposed: float | None = None
    note: str = ""

    @property
    def bit(self) -> Limit | None:
        """The limit that decided, if any."""
        return next((limit for limit in self.limits if limit.bit), None)

    def as_dict(self) -> dict[str, object]:
        return asdict(self)
