"""What a finding of reading is to the person: not understood, a question, or suspicious."""

from typing import Literal

from toreuma.core.findings import Finding

__all__ = ["Kind", "kind_of"]

Kind = Literal["not understood", "question", "suspicious"]

QUESTIONS = frozenset(
    (
        "program.m_word", "program.units", "program.no_point", "program.variable", "datum.unknown", "corner.plain",
        "side.nose", "place.second_reference", "place.lost", "tool.short", "tool.number", "tool.waits", "speed.mode",
        "feed.mode", "program.dialect", "thread.run_out", "contact.assumed", "program.by_hand", "program.behind",
    )
)  # fmt: skip
"""Something was assumed, and somebody knows better."""

SUSPICIOUS = frozenset(
    (
        "contact.scrape", "loose", "axis.past_centre",
        "arc.centre", "c_axis.braked", "c_axis.off", "c_axis.turning", "c_axis.untold", "datum.other", "feed.inherited",
        "feed.large", "feed.missing", "feed.rapid", "feed.zero", "hold.turning", "program.after_end", "program.alarm",
        "program.gap", "program.point", "program.return", "program.sign", "program.twice", "side.left_on",
        "side.rough", "speed.no_clamp", "spindle.reverse", "spindle.stopped", "thread.lead", "thread.surface",
        "tool.measured", "tool.no_offset", "tool.none", "tool.offset", "tool.offset_left",
        "program.number_twice", "program.machine_variable",
    )
)  # fmt: skip
"""It is read as it stands, and a control may well stop at it or do what nobody meant."""


def kind_of(finding: Finding) -> Kind:
    """Whatever is in neither list was not understood: the moves behind it may be others."""
    if finding.code in QUESTIONS:
        return "question"
    return "suspicious" if finding.code in SUSPICIOUS else "not understood"
