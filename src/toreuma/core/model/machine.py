"""The machine as far as times, speeds and power need it."""

import itertools
import re
from difflib import get_close_matches
from typing import Any, Literal

from pydantic import Field, field_validator, model_validator

from toreuma.core.meanings import MEANINGS
from toreuma.core.model.carrier import Carrier
from toreuma.core.model.spindles import CAxis, PowerPoint, SecondSpindle
from toreuma.core.value import Identifier, Name, Positive, Share, Value

__all__ = ["Machine", "OwnWord"]

OF_THE_CARRIER = (
    "stations", "shank_mm", "bar_mm", "station_pitch_mm", "tool_change_s", "reference_d_mm", "reference_from_nose_mm",
)  # fmt: skip
"""What files say of the machine that were written when a machine had one carrier."""


class OwnWord(Value):
    """A G or M word of one machine, and what it does there by its name in programs' vocabulary."""

    word: str = Field(pattern=r"^[GMgm]\d{1,4}(\.\d)?$")
    means: Identifier

    @model_validator(mode="before")
    @classmethod
    def _typed(cls, data: Any) -> Any:
        """``M68 clamp_work`` as a person types it."""
        if isinstance(data, str):
            word, _, means = data.strip().replace(":", " ").replace("=", " ").partition(" ")
            return {"word": word.upper(), "means": means.strip().lower().replace(" ", "_")}
        return data

    @model_validator(mode="after")
    def _known(self) -> "OwnWord":
        if self.means not in MEANINGS:
            near = ", ".join(get_close_matches(self.means, MEANINGS, 3, 0.4)) or "nothing, clamp_work, unclamp"
            raise ValueError(f"nothing is called '{self.means}'; near are {near}")
        return self


class Machine(Value):
    """Its spindles, and the carriers that bring tools to them; ``max_rpm`` and ``power`` are the main spindle's."""

    name: Name
    max_rpm: Positive
    power: tuple[PowerPoint, ...] = Field(min_length=2, description="Continuous rating, by rising speed")
    short_power: tuple[PowerPoint, ...] = Field(default=(), description="Intermittent rating, by rising speed")
    short_minutes: Positive = Field(default=10.0, description="How long the intermittent rating may be drawn")
    surface_speed: bool = Field(default=True, description="Has constant surface speed")
    speeds_rpm: tuple[Positive, ...] = Field(
        default=(), max_length=100, description="The only spindle speeds there are, rising; empty: every speed"
    )
    feeds_mm_rev: tuple[Positive, ...] = Field(
        default=(), max_length=200, description="The only feeds there are, rising; empty: every feed"
    )
    speed_override_pct: tuple[Positive, Positive] = Field(default=(50.0, 120.0), description="Of the spindle's switch")
    feed_override_pct: tuple[float, Positive] = Field(default=(0.0, 150.0), description="Of the feed's switch")
    efficiency: Share = Field(default=0.8, description="Share of motor power that reaches the cut")
    torque_nm: Positive | None = Field(default=None, description="Largest torque at the spindle, whatever the power")
    rapid_x_mm_min: Positive = Field(description="Rapid of the cross slide, on radius")
    rapid_z_mm_min: Positive
    rapids: Literal["straight", "bent", "unsaid"] = Field(
        default="unsaid",
        description="Way of a rapid in two axes: straight, or each axis as fast as it can, so that the way is bent",
    )
    acceleration_mm_s2: Positive = 1500.0
    spindle_ramp_rpm_s: Positive = Field(default=1500.0, description="How fast the spindle changes speed")
    c_axis: CAxis | None = Field(default=None, description="The main spindle stands at an angle and follows")
    second: SecondSpindle | None = Field(default=None, description="A second spindle faces the first")
    carriers: tuple[Carrier, ...] = Field(min_length=1, max_length=8)
    spindle_bore_mm: Positive | None = Field(default=None, description="The largest bar that goes through the spindle")
    travel_x_mm: Positive | None = Field(default=None, description="Of the cross slide, on radius")
    travel_z_mm: Positive | None = Field(default=None, description="Along the bed")
    tailstock: bool = Field(default=False, description="A centre can be brought up")
    steady: bool = Field(default=False, description="A steady rest can stand on the bed")
    catcher: bool = Field(default=False, description="Catches parts that are cut off")
    coolant: Literal["flood", "none", "mist"] = Field(default="flood", description="What the machine brings")
    dialect: Identifier = Field(default="system-a", description="How its control wants programs written")
    words: tuple[OwnWord, ...] = Field(
        default=(), max_length=200, description="What its builder's words mean, where that differs from the dialect"
    )
    lift_mm: Positive | None = Field(
        default=None, description="Its control draws back so far between cuts of a cycle that does not say"
    )
    peck_back_mm: Positive | None = Field(
        default=None, description="A deep-hole cycle comes back to so far above where it was"
    )
    thread_run_out: float | None = Field(
        default=None, ge=0, le=20, description="A thread cycle runs out over so many leads before its end"
    )
    per_h: Positive | None = Field(default=None, description="Cost of an hour, in the shop's currency")
    time_ratio: Positive = Field(default=1.0, description="Time a part takes on it over the time computed")
    warm_up_min: Positive | None = Field(
        default=None, description="Time constant with which it warms up after a cold start"
    )
    sources: tuple[tuple[Name, Name], ...] = Field(default=(), description="Of values a shop has learned, by field")

    @field_validator("words", mode="before")
    @classmethod
    def _words_typed(cls, data: Any) -> Any:
        """Words in one line, with commas between."""
        if isinstance(data, str):
            return [one for one in re.split(r"\s*[,;\n]\s*", data) if one]
        return data

    @model_validator(mode="before")
    @classmethod
    def _as_before(cls, data: Any) -> Any:
        """Older files have one carrier, the machine itself, with a milling spindle in its last stations."""
        if not isinstance(data, dict) or "carriers" in data or "stations" not in data:
            return data
        old = {key: data[key] for key in OF_THE_CARRIER if key in data}
        milling = data.get("milling_stations", 0)
        kept = {k: v for k, v in data.items() if k not in (*old, "carrier", "milling_stations", "second_spindle")}
        kind = data.get("carrier", "turret")
        carriers = [{**old, "kind": kind, "name": kind}]
        if isinstance(milling, int) and isinstance(old["stations"], int) and 0 < milling < old["stations"]:
            carriers[0]["stations"] = old["stations"] - milling
            carriers.append({**old, "kind": "milling spindle", "name": "milling spindle", "stations": milling})
        return {**kept, "carriers": carriers}

    @model_validator(mode="after")
    def _rising(self) -> "Machine":
        rising = (
            ("speeds of the power curve", [point.rpm for point in self.power]),
            ("speeds of the intermittent rating", [point.rpm for point in self.short_power]),
            ("spindle speeds of the ladder", self.speeds_rpm),
            ("feeds of the ladder", self.feeds_mm_rev),
            ("speeds of the second spindle's curve", [point.rpm for point in self.second.power] if self.second else []),
        )
        for name, numbers in rising:
            if any(later <= earlier for earlier, later in itertools.pairwise(numbers)):
                raise ValueError(f"the {name} must rise from one to the next")
        if self.second is None and any("sub" in carrier.reaches for carrier in self.carriers):
            raise ValueError("a carrier reaches a second spindle, and there is none")
        return self

    def source_of(self, field: str) -> str:
        """Where a value the shop has learned comes from; empty for one that was typed."""
        return dict(self.sources).get(field, "")

    @property
    def own_words(self) -> dict[str, str]:
        """What its own words mean."""
        return {one.word: one.means for one in self.words}

    @property
    def stations(self) -> int:
        """Stations of all carriers."""
        return sum(carrier.stations for carrier in self.carriers)

    @property
    def channels(self) -> int:
        """Programs that run beside each other."""
        return max(carrier.channel for carrier in self.carriers)

    def carrier_of(self, station: int) -> Carrier:
        """The carrier a station is on; the last one for stations beyond."""
        left = station
        for carrier in self.carriers:
            if left <= carrier.stations:
                return carrier
            left -= carrier.stations
        return self.carriers[-1]

    def stations_of(self, carrier: Carrier) -> range:
        """The numbers of a carrier's stations."""
        before = sum(one.stations for one in self.carriers[: self.carriers.index(carrier)])
        return range(before + 1, before + carrier.stations + 1)

    def seen_from_second(self, apart_mm: float) -> "Machine":
        """The machine as somebody sees it who stands at the second spindle: that one is the spindle in hand.

        ``apart_mm`` is what lies between the faces of both chuck bodies while the second spindle stands back.
        """
        second = self.second
        if second is None:
            return self
        return self.changed(
            max_rpm=second.max_rpm,
            power=second.power,
            short_power=(),
            efficiency=second.efficiency,
            torque_nm=None,
            c_axis=second.c_axis,
            carriers=tuple(_from_second(one, apart_mm) for one in self.carriers),
        )


def _from_second(carrier: Carrier, apart_mm: float) -> Carrier:
    """Places are counted from the other chuck; a reference point behind that is taken as it is."""
    reaches = tuple("main" if one == "sub" else "sub" for one in carrier.reaches)
    place = apart_mm - carrier.reference_from_nose_mm
    return carrier.changed(
        reaches=reaches, reference_from_nose_mm=place if place > 0 else carrier.reference_from_nose_mm
    )
