"""What the shop asks of a control: how it wants programs written, and what it makes of what it reads."""

from toreuma.core.dialect import Dialect
from toreuma.core.kinds.shop.field import YES_NO, ShopField
from toreuma.core.meanings import CYCLES, MEANINGS, NOTHING, OF_THE_MACHINE
from toreuma.core.read.sentence import words_of

__all__ = ["dialect_fields"]

UNITS = (("asked for", "unsaid"), ("mm", "mm"), ("inch", "inch"))
FEEDS = (("asked for", "unsaid"), ("per turn", "turn"), ("per minute", "minute"))
SPEEDS = (("asked for", "unsaid"), ("turns a minute", "fixed"), ("surface speed", "surface"))
WHOLE = (("asked for", "unsaid"), ("the unit", "units"), ("its smallest step", "steps"))

_NUMBERS = (
    ShopField(
        path="whole_numbers",
        label="X20 without a point is",
        form="choice",
        options=WHOLE,
        heading="Numbers",
        why="a thousand times nearer or farther, if it is taken wrong",
    ),
    ShopField(
        path="cycles_count_steps",
        label="P, Q and D of cycles count steps",
        form="choice",
        options=YES_NO,
        why="where they have no point",
    ),
    ShopField(path="x_is_diameter", label="X is a diameter", form="choice", options=YES_NO),
    ShopField(path="decimals.mm", label="decimals written, mm", why="of places"),
    ShopField(path="decimals.inch", label="decimals written, inch"),
    ShopField(
        path="smallest.mm",
        label="decimals of a step, mm",
        why="of the smallest step that a number without a point counts",
    ),
    ShopField(path="smallest.inch", label="decimals of a step, inch"),
    ShopField(path="feed_decimals.mm", label="decimals of a feed, mm", why="per turn"),
    ShopField(path="feed_decimals.inch", label="decimals of a feed, inch"),
    ShopField(path="power_on.units", label="units", form="choice", options=UNITS, heading="Before a program says it"),
    ShopField(path="power_on.feed", label="feed", form="choice", options=FEEDS),
    ShopField(path="power_on.speed", label="S", form="choice", options=SPEEDS),
)

_BLOCKS = (
    ShopField(path="line_step", label="block numbers step by", why="0 writes none", heading="Blocks"),
    ShopField(
        path="relative",
        label="ways from where it is",
        form="choice",
        options=(("U and W", ("U", "W")), ("a word of their own", ("", ""))),
    ),
    ShopField(
        path="relative_angle",
        label="turns from where the work is",
        form="choice",
        options=(("H", "H"), ("a word of their own", "")),
    ),
    ShopField(
        path="relative_across",
        label="ways along Y from where it is",
        form="choice",
        options=(("V", "V"), ("a word of their own", "")),
    ),
    ShopField(
        path="corners",
        label="chamfers and roundings",
        form="choice",
        options=(("asked for", "unsaid"), ("behind a comma", "comma"), ("C, R, A plain", "plain")),
    ),
    ShopField(
        path="arc_centre",
        label="I and K of an arc",
        form="choice",
        options=(("from its start", "way"), ("places", "place")),
    ),
    ShopField(
        path="drill_above",
        label="R of a drilling cycle",
        form="choice",
        options=(("from the start", "way"), ("a place", "place")),
    ),
    ShopField(
        path="thread_lead",
        label="lead of a thread",
        form="choice",
        options=(("behind F", "feed"), ("behind K and I", "along")),
    ),
    ShopField(
        path="tool_number",
        label="T says",
        form="choice",
        why="where it says the station alone, D has the offset",
        options=(("station and offset", "station and offset"), ("station alone", "station")),
    ),
    ShopField(path="tool_word", label="a tool is called by", form="text", why="T{station:02d}{station:02d}"),
    ShopField(path="tool_off_word", label="its offset taken away by", form="text"),
    ShopField(path="pause", label="waits by", form="text", why="{dwell} P{milliseconds}, or {dwell} X{seconds}"),
    ShopField(path="wait", label="channels wait at", form="text", why="M{mark} P{channels}, or words of its own"),
    ShopField(path="wait_from", label="marks from", why="M number of the first"),
    ShopField(
        path="second_axis", label="second spindle moves by", form="choice", options=(("A", "A"), ("B", "B"), ("V", "V"))
    ),
    ShopField(path="loop", label="runs a program so often", form="text", why="{call} P{number} L{parts}"),
)

_FILES = (
    ShopField(path="file_name", label="files are named", form="text", why="O{number:04d}", heading="Files"),
    ShopField(path="file_suffix", label="and end with", form="text"),
    ShopField(path="tape_marks", label="% opens and closes", form="choice", options=YES_NO),
    ShopField(path="comment_to_end", label="comment up to the end behind", form="text", empty="none"),
    ShopField(path="channels_in_one", label="all channels in one file", form="choice", options=YES_NO),
)

_CONTROL = (
    ShopField(
        path="lift_mm",
        usual=(0.05, 2),
        label="draws back by",
        unit="mm",
        why="between cuts of a cycle that does not say",
        heading="Numbers of the control itself",
    ),
    ShopField(
        path="peck_back_mm",
        usual=(0.05, 5),
        label="back into a hole to",
        unit="mm",
        why="so far above where the drill was, it feeds again",
    ),
    ShopField(
        path="thread_run_out",
        usual=(0, 3),
        label="threads run out, leads",
        why="a thread cycle of one pass comes out at 45° so far before its end",
    ),
)

LINES = (
    ("start", "a program begins"),
    ("tool", "a tool with surface speed"),
    ("tool_fixed", "a tool with fixed speed"),
    ("tool_stopped", "a tool on standing work"),
    ("tool_driven", "a driven tool"),
    ("after_tool", "behind a tool"),
    ("after_driven", "behind a driven tool"),
    ("home", "to the reference point"),
    ("end", "a program ends"),
    ("caution", "what stands at its head"),
)


def dialect_fields(dialect: Dialect) -> tuple[ShopField, ...]:
    """Everything of a control a person may type."""
    return (*_NUMBERS, *_BLOCKS, *_FILES, *_CONTROL, *_forms(dialect), *_lines(), *_words(dialect))


def _forms(dialect: Dialect) -> list[ShopField]:
    """Cycles it has, each with its form."""
    return [
        ShopField(
            path=f"cycles.{name}",
            label=words_of(name),
            form="lines",
            heading="" if n else "Cycles: their letters, and what each is told",
            empty="written move by move" if n == 0 else "",
            why="" if n else "blocks apart by |, as U{depth} R{retract} | P{first} Q{last} F{feed}",
        )
        for n, name in enumerate(sorted(CYCLES & dialect.codes.keys() - {"cycle_off"}))
    ]


def _lines() -> list[ShopField]:
    return [
        ShopField(
            path=path,
            label=label,
            form="lines",
            heading="" if n else "Lines it is written in",
            why="" if n else "lines apart by |; {rapid} stands for its word, {x} {z} {surface} for numbers",
        )
        for n, (path, label) in enumerate(LINES)
    ]


def _words(dialect: Dialect) -> list[ShopField]:
    """The word it writes for each meaning, those of the machine's builder last, and what it reads besides."""
    names = sorted(MEANINGS - {NOTHING}, key=lambda one: (one in OF_THE_MACHINE, one not in dialect.codes, one))
    headings = {names[0]: "Words it writes", min(OF_THE_MACHINE): "Words of the machine's builder"}
    rows = [
        ShopField(path=f"codes.{name}", label=words_of(name), form="word", heading=headings.get(name, ""))
        for name in names
    ]
    also = ShopField(
        path="also",
        label="words it reads too",
        form="meanings",
        empty="none",
        heading="Further words",
        why="M7 mist_on, M2 end_again; the names are in help, under program words",
    )
    return [*rows, also]
