"""Every kind of sheet, by its name. A new one is a module here and a line below."""

from collections.abc import Callable

from toreuma.papers.blocks import Sheet
from toreuma.papers.dossier import Dossier
from toreuma.papers.sheets.inspection import inspection_sheets
from toreuma.papers.sheets.operations import operation_sheets
from toreuma.papers.sheets.run_card import run_cards
from toreuma.papers.sheets.setup import setup_sheets
from toreuma.papers.sheets.tools import tool_lists

__all__ = ["SHEETS", "TITLES"]

SHEETS: dict[str, Callable[[Dossier], tuple[Sheet, ...]]] = {
    "setup": setup_sheets,
    "tools": tool_lists,
    "operations": operation_sheets,
    "inspection": inspection_sheets,
    "run": run_cards,
}

TITLES = {
    "setup": "Setup sheet",
    "tools": "Tool list",
    "operations": "Operation sheet",
    "inspection": "Inspection sheet",
    "run": "Run card",
}
