"""What the words of a control mean: data that writer and reader both obey, and all they share."""

import re
from collections.abc import Mapping
from difflib import get_close_matches
from string import Formatter
from typing import Any, Literal

from pydantic import Field, model_validator

from toreuma.core.cycle_words import CYCLE_WORDS, PLACES, letters_of, told_by
from toreuma.core.meanings import MEANINGS, NEEDED, NOTHING, OF_THE_MACHINE
from toreuma.core.model.machine import Machine
from toreuma.core.model.steps import FT_MM, Steps
from toreuma.core.value import Identifier, Name, Positive, Value

__all__ = ["Dialect", "OwnDialect", "PowerOn", "own_id", "short"]

CODE = re.compile(r"[GM]\d{1,4}(\.\d)?", re.I)
SET_AT_MACHINE = ("lift_mm", "peck_back_mm", "thread_run_out")
"""Numbers of the control itself, which the machine may have otherwise."""

SPEED_WORDS = ("clamp_rpm", "surface", "fixed_rpm", "live_rpm")


def short(word: str) -> str:
    """G01, G1 and g1 are the same word."""
    return word[0].upper() + f"{float(word[1:]):g}"


class PowerOn(Value):
    """What a control takes for granted until the program says otherwise."""

    units: Literal["unsaid", "mm", "inch"] = "unsaid"
    feed: Literal["unsaid", "turn", "minute"] = "unsaid"
    speed: Literal["unsaid", "fixed", "surface"] = "unsaid"


class OwnDialect(Value):
    """A shop's own way of writing: the name of a dialect it goes out from, and what is said otherwise.

    ``changes`` has fields of `Dialect`; of its tables, such as codes and cycles, what is said stands beside what the
    base says, and None takes something away.
    """

    name: Name
    based_on: Identifier
    changes: dict[str, Any] = Field(default={}, max_length=60)

    def on(self, base: "Dialect") -> "Dialect":
        """The dialect. Raises `ValueError` for what cannot be."""
        data = base.model_dump()
        for field, value in self.changes.items():
            if field not in Dialect.model_fields or field in ("id", "of_its_machine"):
                raise ValueError(f"a dialect has no '{field[:40]}'")
            if isinstance(data.get(field), dict) and isinstance(value, dict):
                value = {key: one for key, one in {**data[field], **value}.items() if one is not None}
            data[field] = value
        codes, also = (one if isinstance(one := self.changes.get(name), dict) else {} for name in ("codes", "also"))
        said = {*codes, *map(str, also.values())} & OF_THE_MACHINE
        data["of_its_machine"] = sorted({*base.of_its_machine, *said})
        return Dialect.model_validate({**data, "id": own_id(self.name), "name": self.name})


def own_id(name: str) -> str:
    """What a job calls a dialect of the shop: its name in plain letters."""
    plain = re.sub(r"[^A-Za-z0-9_.-]+", "-", name).strip("-").lower()
    return (plain or "own")[:40]


class Dialect(Value):
    """One control's way of writing. ``codes`` has a G or M word for what it does, ``also`` further words for the same
    things; what a thing is called stands in `toreuma.core.meanings`."""

    id: Identifier
    name: Name
    source: Name = ""
    file_suffix: str = ".nc"
    file_name: str = Field(default="O{number:04d}", description="Name of a program's file, without its ending")
    channel_mark: str = Field(
        default="$", max_length=3, description="With a number, begins a channel's part of a text that holds them all"
    )
    channels_in_one: bool = Field(default=False, description="All channels are written into one file")
    comment: tuple[str, str] = ("(", ")")
    comment_to_end: str = Field(default=";", max_length=2, description="Opens a comment that ends with the line")
    tape_marks: bool = Field(default=True, description="A % opens and closes a tape")
    section: str = Field(description="Comment that opens an operation, with {number} and {name}")
    x_is_diameter: bool = True
    whole_numbers: Literal["unsaid", "units", "steps"] = Field(
        default="unsaid", description="What a place without a point means: the unit, its smallest step, or not known"
    )
    power_on: PowerOn = Field(default_factory=lambda: PowerOn(), description="What is in force before it is said")
    tool_number: Literal["station and offset", "station"] = Field(
        default="station and offset",
        description="What T says: both, its last two digits the offset; or the station, with the offset behind D",
    )
    relative: tuple[str, str] = Field(
        default=("U", "W"), description="Letters of ways along X and Z from where the tool is; empty: none"
    )
    relative_angle: str = Field(
        default="", description="Letter of a turn of the work from where it stands; empty: none"
    )
    relative_across: str = Field(default="", description="Letter of a way along Y from where the tool is; empty: none")
    drill_above: Literal["way", "place"] = Field(
        default="way", description="R of a drilling cycle: how far from the start, or the place"
    )
    corners: Literal["comma", "plain", "unsaid"] = Field(
        default="unsaid", description="Chamfers, roundings and angles in a line: behind a comma only, or C, R, A plain"
    )
    arc_centre: Literal["way", "place"] = Field(default="way", description="I and K: from the arc's start, or places")
    dwell_s: dict[Literal["P", "X", "U", "F"], Positive] = Field(
        default={"P": 0.001, "X": 1.0, "U": 1.0}, description="Seconds that one of each word of a dwell stands for"
    )
    decimals: dict[Literal["mm", "inch"], int]
    smallest: dict[Literal["mm", "inch"], int] = Field(
        default={"mm": 3, "inch": 4}, description="Decimals of the smallest step that numbers without a point count"
    )
    cycles_count_steps: bool = Field(
        default=True, description="P, Q and D of cycles count smallest steps where they have no point"
    )
    feed_decimals: dict[Literal["mm", "inch"], int]
    minute_decimals: dict[Literal["mm", "inch"], int] = Field(
        default={"mm": 1, "inch": 3}, description="Of feeds a minute"
    )
    speed_decimals: int = Field(default=0, ge=0, le=3, description="Of S, a surface speed or turns a minute")
    line_step: int = Field(default=10, ge=0, description="Step of the block numbers; 0 writes none")
    tool_word: str
    tool_off_word: str = Field(description="Takes the tool's offset away")
    pause: str = Field(default="{dwell} P{milliseconds}", description="Waits so many {seconds} or {milliseconds}")
    set_second_datum: str = Field(
        default="{set_datum} L2 P2 Z{place}", description="Puts the second spindle's datum to a {place}"
    )
    loop: str = Field(description="Runs the program {number} so many {parts} times")
    codes: dict[str, str]
    also: dict[str, str] = Field(default={}, description="Further words, and what each means")
    of_its_machine: tuple[str, ...] = Field(
        default=(), description="Meanings only a machine's builder gives a word, whose words here are known to be right"
    )
    cycles: dict[str, tuple[str, ...]] = Field(
        default={},
        description="Words of each cycle behind its own, block by block; those that are not told are left out",
    )
    cycles_also: dict[str, tuple[tuple[str, ...], ...]] = Field(
        default={}, description="Further forms of cycles, block by block, for reading"
    )
    home: tuple[str, ...] = Field(
        default=("{reference} U0", "{reference} W0"), description="Back to the reference point"
    )
    start: tuple[str, ...]
    tool: tuple[str, ...]
    tool_fixed: tuple[str, ...] = Field(description="In place of ``tool`` where the spindle keeps one speed")
    tool_stopped: tuple[str, ...] = Field(description="In place of ``tool`` where the spindle stands")
    tool_shared: tuple[str, ...] = Field(description="In place of ``tool`` where another channel commands the speed")
    after_tool: tuple[str, ...]
    tool_driven: tuple[str, ...] = Field(description="In place of ``tool`` where the tool turns and the work stands")
    wait_from: int = Field(default=101, ge=1, description="M number of the first mark at which channels wait")
    lift_mm: Positive = Field(
        default=0.5, description="The control draws back so far between cuts of a cycle that does not say, mm"
    )
    peck_back_mm: Positive = Field(
        default=0.5, description="A deep-hole cycle comes back to so far above where it was, mm"
    )
    thread_run_out: float = Field(
        default=0.0, ge=0, le=20, description="A thread cycle of one pass runs out at 45 degrees over so many leads"
    )
    thread_lead: Literal["feed", "along"] = Field(
        default="feed", description="The lead of a thread stands behind F, or behind K along Z and I across"
    )
    wait: str = Field(
        default="M{mark} P{channels}",
        description="A wait: the number of its mark, and the channels that come to it, as digits",
    )
    second_axis: Literal["A", "B", "V"] = Field(default="B", description="Letter of the second spindle's way along Z")
    after_driven: tuple[str, ...] = Field(description="In place of ``after_tool`` behind a driven tool")
    end: tuple[str, ...]
    caution: tuple[str, ...] = ()

    def steps(self, units: Literal["mm", "inch"]) -> Steps:
        """The smallest differences of speeds and feeds that can be written."""
        s, inch = 10.0**-self.speed_decimals, units == "inch"
        return Steps(
            surface_m_min=s * (FT_MM / 1000 if inch else 1.0),
            rpm=s,
            feed_mm_rev=10.0 ** -self.feed_decimals[units] * (25.4 if inch else 1.0),
            feed_mm_min=10.0 ** -self.minute_decimals[units] * (25.4 if inch else 1.0),
        )

    def set_at(self, machine: Machine) -> "Dialect":
        """With the numbers that a machine's own control has set otherwise, written in the words of its builder."""
        own: dict[str, Any] = {name: value for name in SET_AT_MACHINE if (value := getattr(machine, name)) is not None}
        written = OF_THE_MACHINE | (MEANINGS - self.codes.keys() - {NOTHING})
        words = {name: word for word, name in reversed(machine.own_words.items()) if name in written}
        if words:
            own["codes"] = {**self.codes, **words}
        return self.changed(**own) if own else self

    def vocabulary(self, machine: Mapping[str, str] | None = None) -> dict[str, str]:
        """What each word means, the word written shortest: ``{"G0": "rapid"}``.

        ``machine`` has the machine's own words and comes before the dialect. Where it is None no machine is known, and
        words that only its builder gives a meaning have none.
        """
        every = {**{short(word): name for name, word in self.codes.items()},
                 **{short(word): name for word, name in self.also.items()}}  # fmt: skip
        if machine is None:
            unknown = OF_THE_MACHINE - set(self.of_its_machine)
            return {word: name for word, name in every.items() if name not in unknown}
        return every | {short(word): name for word, name in machine.items()}

    def file_of(self, number: int, channel: int = 0) -> str:
        """What the file of a program is called; one of several channels ends with its number."""
        tail = f"-{channel}" if channel and not self.channels_in_one else ""
        return f"{self.file_name.format(number=number)}{tail}{self.file_suffix}"

    def forms_of(self, name: str) -> tuple[tuple[str, ...], ...]:
        """The forms of a cycle, that in which it is written before those that are only read."""
        own = (self.cycles[name],) if name in self.cycles else ()
        return (*own, *self.cycles_also.get(name, ()))

    def has(self, name: str) -> bool:
        """Whether there is a word for something."""
        return name in self.codes

    @property
    def waits_by_words(self) -> bool:
        """Channels wait at words of their own, not at M words."""
        return not self.wait.startswith("M{mark}")

    @model_validator(mode="after")
    def _complete(self) -> "Dialect":
        missing = sorted(NEEDED - set(self.codes))
        if missing:
            raise ValueError(f"the dialect has no code for {missing[0]}")
        for field in ("decimals", "smallest", "feed_decimals", "minute_decimals"):
            if len(getattr(self, field)) < 2:
                raise ValueError(f"{field} are said for both mm and inch")
        for name in (*self.codes, *self.also.values()):
            if name not in MEANINGS:
                near = ", ".join(get_close_matches(name, MEANINGS, 3, 0.5))
                raise ValueError(f"nothing is called '{name[:40]}'" + (f"; near are {near}" if near else ""))
        for word in (*self.codes.values(), *self.also):
            if not CODE.fullmatch(word):
                raise ValueError(f"'{word[:20]}' is no G or M word")
        return self

    @model_validator(mode="after")
    def _templates_can_be_filled(self) -> "Dialect":
        whole = ("home", "start", "end", "tool", "tool_fixed", "tool_stopped", "tool_shared", "tool_driven",
                 "after_tool", "after_driven")  # fmt: skip
        words = {"units", "tool_word", "tool_off_word", "x", "z", *SPEED_WORDS, *self.codes}
        known: dict[str, set[str]] = {
            **dict.fromkeys(whole, words),
            "loop": {"number", "parts", *self.codes},
            "pause": {"seconds", "milliseconds", *self.codes},
            "set_second_datum": {"place", *self.codes},
            "section": {"number", "name"},
            "file_name": {"number"},
            "tool_word": {"station"},
            "wait": {"mark", "channels"},
            "tool_off_word": {"station"},
        }
        for name in (*self.cycles, *self.cycles_also):
            for form in self.forms_of(name):
                _check_form(name, form)
        if self.wait.count("{mark}") != 1 or self.wait.count("{channels}") > 1 or not self.wait[0].isprintable():
            raise ValueError(f"wait '{self.wait[:40]}' names its {{mark}} once, and its {{channels}} at most once")
        for field, allowed in known.items():
            value = getattr(self, field)
            for template in (value,) if isinstance(value, str) else value:
                _check_template(field, template, allowed)
        return self


def _check_form(name: str, form: tuple[str, ...]) -> None:
    """Raises `ValueError` for a form of a cycle that could not be written and read."""
    if name not in MEANINGS or not 1 <= len(form) <= 2:
        raise ValueError(f"cycles: {name[:40]} is no cycle of one or two blocks")
    for word in " ".join(form).split():
        if (what := told_by(word)) not in CYCLE_WORDS:
            raise ValueError(f"cycles: {name[:40]} has '{word[:30]}'; words are written as U{{depth}}")
        if what in PLACES and word[0] not in PLACES[what]:
            raise ValueError(f"cycles: {name[:40]} has '{word[:30]}'; {what} stands behind {PLACES[what][0]}")
        if word[0] in "GMNOST":
            raise ValueError(f"cycles: {name[:40]} has '{word[:30]}'; {word[0]} is never a number of a cycle")
    for block, letters in zip(form, letters_of(form), strict=True):
        if len(letters) < len(block.split()):
            raise ValueError(f"cycles: {name[:40]} has a letter twice in '{block[:40]}'")


def _check_template(field: str, template: str, allowed: set[str]) -> None:
    """Raises `ValueError` for a template that could not be filled in, or with more than its words."""
    try:
        pieces = list(Formatter().parse(template))
    except ValueError as error:
        raise ValueError(f"{field} '{template[:40]}' cannot be read ({error})") from None
    for _, name, style, conversion in pieces:
        if name is None:
            continue
        if name not in allowed:
            raise ValueError(f"{field} asks for {{{name[:40]}}}; known are {', '.join(sorted(allowed - MEANINGS))}")
        if conversion or style not in ("", "d", "02d", "03d", "04d"):
            raise ValueError(f"{field}: {{{name}}} is written plain or as :02d")
