"""Programs of several channels in one text: put together where the control wants it so, and taken apart again."""

import re
from collections.abc import Sequence

from toreuma.core.dialect import Dialect
from toreuma.core.post import Posted

__all__ = ["in_one", "taken_apart"]


def in_one(programs: Sequence[Posted], dialect: Dialect) -> tuple[Posted, ...]:
    """The files as the control wants them: one a channel, or one with a mark before every channel's part."""
    if not dialect.channels_in_one or len(programs) < 2:
        return tuple(programs)
    parts = [f"{dialect.channel_mark}{n}\n{one.text.strip().strip('%').strip()}" for n, one in enumerate(programs, 1)]
    return (Posted(programs[0].name, "%\n" + "\n".join(parts) + "\n%\n"),)


def taken_apart(text: str, dialect: Dialect) -> dict[int, str]:
    """The text of every channel, its lines where they stand in the whole: others are left empty. One channel, 1, where
    there are no marks."""
    mark = re.compile(rf"\s*{re.escape(dialect.channel_mark)}([1-9])\s*$")
    lines = text.split("\n")
    begins = [(n, int(match[1])) for n, line in enumerate(lines) if (match := mark.match(line))]
    if not dialect.channel_mark or not begins:
        return {1: text}
    found: dict[int, list[str]] = {channel: [""] * len(lines) for _, channel in begins}
    for (start, channel), (end, _) in zip(begins, [*begins[1:], (len(lines), 0)], strict=True):
        for n in range(start + 1, end):
            found[channel][n] = "" if lines[n].strip() == "%" else lines[n]
    return {channel: "\n".join(kept) for channel, kept in sorted(found.items())}
