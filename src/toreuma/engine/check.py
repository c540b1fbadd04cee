"""A program without a drawing: cut out of a blank with tools, and what comes of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from toreuma.core.findings import Finding
from toreuma.core.read import Given
from toreuma.engine.foreign import given_of, tool_rows
from toreuma.engine.study import Asked, Cut, Study, cut_of, study_of

__all__ = ["Checked", "check_program"]


@dataclass(frozen=True, kw_only=True)
class Checked:
    """A program as it was read, and what came of cutting it."""

    study: Study
    cut: Cut

    @property
    def findings(self) -> tuple[Finding, ...]:
        return self.cut.findings

    @property
    def safe(self) -> bool:
        """Nothing met what it must not, and nothing was left that is not understood."""
        return all(one.severity != "error" for one in self.findings)


def check_program(
    text: str,
    blank: str,
    tools: Any = None,
    *,
    name: str | None = None,
    machine: str | None = None,
    given: Given | None = None,
) -> Checked:
    """Read a text, fill in its tools, and cut it out of a blank. Raises `ToreumaError`.

    ``tools`` are rows as in a file of tools; with ``machine`` its own words are known.
    """
    data = tools if tools is not None else {}
    known = given or given_of(data, "tools")
    asked = Asked(dialect=name, blank=blank, tools=_rows(data), machine=machine, given=known)
    study = study_of(text, asked)
    if study.faults:
        raise study.faults[0]
    return Checked(study=study, cut=cut_of(study))


def _rows(data: Any) -> dict[int, Mapping[str, Any]]:
    rows = data.get("tools", data) if isinstance(data, dict) else data
    return dict(tool_rows(rows, "tools")) if rows else {}
