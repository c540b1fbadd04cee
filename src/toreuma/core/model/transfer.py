"""How the part goes from one spindle to the other."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.value import Positive, Value

__all__ = ["HandOver", "TurnRound"]

Amount = Annotated[float, Field(ge=0, le=1e5)]


class HandOver(Value):
    """The second spindle takes the part; where and how deep it grips is the second hold's."""

    how: Literal["released", "parted", "pulled"] = Field(
        default="released", description="The first hold opens; the part is cut off between both; or bar is pulled first"
    )
    rpm: Amount = Field(default=0.0, description="Speed of both spindles when they meet; 0: they stand")
    phase: bool = Field(default=True, description="Their angles are matched, so that flats keep their place")
    approach_mm: Positive = Field(default=5.0, description="In front of the grip the rapid ends")
    feed_mm_min: Positive = Field(default=600.0, description="Of the way to the grip")
    push_n: Positive = Field(default=1000.0, description="Force at which the way to the grip ends for good")
    pull_mm: Positive | None = Field(default=None, description="Length of bar drawn out; empty: up to the next cut")
    dwell_s: Amount = Field(default=0.5, description="Before the jaws close, for the part to settle")
    air_blast: bool = Field(default=True, description="Chips are blown off jaws and stop first")
    check_part: bool = Field(default=True, description="The second hold is asked whether the part is there")
    park_d_mm: Positive | None = Field(
        default=None, description="Diameter at which the tips of all carriers wait; empty: their reference points"
    )
    apart: tuple[tuple[str, str], ...] = Field(
        default=(), max_length=100, description="Pairs of tools that never work at the same time, as T1 and T11"
    )


class TurnRound(Value):
    """A part turned round by hand, where no second spindle takes it."""

    clean_s: Amount = Field(default=15.0, description="To take burrs off and to wipe jaws and seat")
    turn_s: Amount = Field(default=20.0, description="To turn it round, seat and tighten it")
    check_s: Amount = Field(default=25.0, description="To check how it runs and how far it stands out")
    runout_um: Positive = Field(default=20.0, description="How far it may run out")
