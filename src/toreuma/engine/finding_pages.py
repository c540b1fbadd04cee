"""What every finding means, by its code: those written down, and one for each limit of a cut."""

from functools import cache

from toreuma.core.cutting.limits import LIMITS, LimitKind
from toreuma.shipped.library import finding_texts

__all__ = ["finding_pages"]


@cache
def finding_pages() -> dict[str, tuple[str, str]]:
    """Title and text in Markdown of every finding by its code."""
    found = {code: (title, _written(code, *rest)) for code, title, *rest in finding_texts()}
    return found | {kind.code: (f"Beyond a limit: {kind.name}", _of_limit(kind)) for kind in LIMITS}


def _written(code: str, means: str, mends: str) -> str:
    return f"{means}\n\n**What mends it:** {mends[0].lower()}{mends[1:]}\n\n`{code}`"


def _of_limit(kind: LimitKind) -> str:
    lines = [kind.why, f"**Broken:** {kind.beyond}", f"**Looked at:** {kind.quantity} {kind.symbol}, {kind.unit}"]
    if kind.formula:
        lines.append(f"**Formula:** {kind.formula}")
    if kind.source:
        lines.append(f"**Source:** {kind.source}")
    if kind.table:
        lines.append("It is the range of a table, not a law of physics.")
    if not kind.binds:
        lines.append("It is shown; the machine keeps it itself, or no choice of numbers mends it.")
    return "\n\n".join((*lines, f"`{kind.code}`"))
