"""Whether a text is a program of words at all."""

from collections.abc import Sequence

from toreuma.core.read.words import Block

__all__ = ["other_language"]

MOST_STRANGE = 0.4
"""Share of lines that may not be understood before the text is taken for another language."""

FEWEST = 3


def other_language(blocks: Sequence[Block]) -> str:
    """Why a text is no program of letters and numbers, in words; empty where it is one."""
    solid = [one for one in blocks if one.text and not one.text.startswith("%")]
    said = [one for one in solid if one.said.words or one.said.steers is not None]
    if not solid:
        return "there is nothing in this text"
    strange = [one for one in solid if one.unread or (one.said.wrong and not one.said.words)]
    words = sum(any(letter == "G" for letter, _ in one.words) for one in said)
    if len(strange) > MOST_STRANGE * len(solid) and (len(strange) >= FEWEST or not said):
        return f"this is no program of letters and numbers: {len(strange)} of {len(solid)} lines are something else"
    if not said:
        return "" if all(one.comments for one in solid) else "this is no program of letters and numbers"
    if not words and not any(letter in "XZMT" for one in said for letter, _ in one.words) and strange:
        return "this is no program of letters and numbers: no line says a move"
    return ""
