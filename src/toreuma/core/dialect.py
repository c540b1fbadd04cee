"""What the words of a control mean: data that writer and reader both obey, and all they share."""

from string import Formatter
from typing import Literal

from pydantic import Field, model_validator

from toreuma.core.model.steps import FT_MM, Steps
from toreuma.core.value import Identifier, Name, Value

__all__ = ["CODE_NAMES", "Dialect"]

CODE_NAMES = frozenset(
    [
        "rapid",
        "line",
        "thread",
        "arc_clockwise",
        "arc_counter_clockwise",
        "dwell",
        "catcher_out",
        "catcher_in",
        "pick_off_hold",
        "pick_off_away",
        "centre_in",
        "centre_out",
        "unclamp",
        "clamp_work",
        "call",
        "return",
        "tap_cycle",
        "peck_cycle",
        "thread_cycle",
        "turn_cycle",
        "face_cycle",
        "rough_cycle",
        "rough_face_cycle",
        "pattern_cycle",
        "finish_cycle",
        "face_peck_cycle",
        "groove_cycle",
        "whole_thread_cycle",
        "cycle_off",
        "plane",
        "inch",
        "mm",
        "reference",
        "compensation_off",
        "clamp",
        "work_offset",
        "surface_speed",
        "fixed_speed",
        "feed_per_minute",
        "feed_per_rev",
        "stop",
        "optional_stop",
        "spindle_forward",
        "spindle_reverse",
        "spindle_stop",
        "coolant_on",
        "coolant_off",
        "end",
        "c_axis_on",
        "c_axis_off",
        "brake_on",
        "brake_off",
        "live_forward",
        "live_reverse",
        "live_stop",
        "polar_on",
        "polar_off",
        "main_spindle",
        "second_spindle",
        "second_offset",
        "set_datum",
        "second_open",
        "second_close",
        "air_blast",
        "sync",
        "sync_off",
        "phase",
        "push_limit",
        "closed_asked",
        "part_asked",
        "part_out",
        "speed_shared",
    ]
)


SPEED_WORDS = ("clamp_rpm", "surface", "fixed_rpm", "live_rpm")


class Dialect(Value):
    """One control's way of writing. ``codes`` names each G and M word by what it does."""

    id: Identifier
    name: Name
    source: Name = ""
    file_suffix: str = ".nc"
    comment: tuple[str, str] = ("(", ")")
    section: str = Field(description="Comment that opens an operation, with {number} and {name}")
    x_is_diameter: bool = True
    whole_numbers: Literal["unsaid", "units", "steps"] = Field(
        default="unsaid", description="What a place without a point means: the unit, its smallest step, or not known"
    )
    decimals: dict[Literal["mm", "inch"], int]
    feed_decimals: dict[Literal["mm", "inch"], int]
    minute_decimals: dict[Literal["mm", "inch"], int] = Field(
        default={"mm": 1, "inch": 3}, description="Of feeds a minute"
    )
    speed_decimals: int = Field(default=0, ge=0, le=3, description="Of S, a surface speed or turns a minute")
    line_step: int = Field(default=10, ge=0, description="Step of the block numbers; 0 writes none")
    tool_word: str
    tool_off_word: str = Field(description="Takes the tool's offset away")
    loop: str = Field(description="Runs the program {number} so many {parts} times")
    codes: dict[str, str]
    start: tuple[str, ...]
    tool: tuple[str, ...]
    tool_fixed: tuple[str, ...] = Field(description="In place of ``tool`` where the spindle keeps one speed")
    tool_stopped: tuple[str, ...] = Field(description="In place of ``tool`` where the spindle stands")
    tool_shared: tuple[str, ...] = Field(description="In place of ``tool`` where another channel commands the speed")
    after_tool: tuple[str, ...]
    tool_driven: tuple[str, ...] = Field(description="In place of ``tool`` where the tool turns and the work stands")
    wait_from: int = Field(default=101, ge=1, description="M number of the first mark at which channels wait")
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

    @model_validator(mode="after")
    def _complete(self) -> "Dialect":
        missing = sorted(CODE_NAMES - set(self.codes))
        if missing:
            raise ValueError(f"the dialect has no code for {missing[0]}")
        return self

    @model_validator(mode="after")
    def _templates_can_be_filled(self) -> "Dialect":
        whole = ("start", "end", "tool", "tool_fixed", "tool_stopped", "tool_shared", "tool_driven", "after_tool",
                 "after_driven")  # fmt: skip
        words = {"units", "tool_word", "tool_off_word", "x", "z", *SPEED_WORDS, *self.codes}
        known = {**dict.fromkeys(whole, words), "loop": {"number", "parts", *self.codes},
                 "section": {"number", "name"}, "tool_word": {"station"}, "tool_off_word": {"station"}}  # fmt: skip
        for field, allowed in known.items():
            value = getattr(self, field)
            for template in (value,) if isinstance(value, str) else value:
                _check_template(field, template, allowed)
        return self


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
            raise ValueError(f"{field} asks for {{{name[:40]}}}; known are {', '.join(sorted(allowed - CODE_NAMES))}")
        if conversion or style not in ("", "d", "02d", "03d", "04d"):
            raise ValueError(f"{field}: {{{name}}} is written plain or as :02d")
