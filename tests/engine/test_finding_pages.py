"""Every finding the code can make has a page of its own, and every page is of one that can be made."""

import ast
import re
from pathlib import Path

import toreuma
from toreuma.core.cutting.limits import LIMITS
from toreuma.engine.finding_pages import finding_pages
from toreuma.engine.help import beside, page_of

CORE = Path(toreuma.__file__).parent / "core"
MADE_BY = ("Finding", "OperationFault", "_say", "told", "_told", "add", "_note", "_once")
SEVERITIES = ("error", "warning", "note")


def made() -> set[str]:
    """Codes that stand as text in a call that makes a finding, read from the source."""
    found = set()
    for path in CORE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if not isinstance(node, ast.Call):
                continue
            name = getattr(node.func, "id", getattr(node.func, "attr", ""))
            texts = [one.value for one in node.args[:3] if isinstance(one, ast.Constant) and isinstance(one.value, str)]
            if name in MADE_BY:
                found |= {one for one in texts[:2] if re.fullmatch(r"[a-z_]+\.[a-z_]+", one)}
                if name == "_note" and path.name == "unsaid.py":
                    found.add(f"unsaid.{texts[0]}")
    return found


def test_every_finding_has_a_page_and_no_page_is_of_nothing() -> None:
    pages, codes = finding_pages(), made()
    assert len(codes) > 150
    assert not codes - set(pages)
    text = "\n".join(path.read_text("utf-8") for path in CORE.rglob("*.py"))
    nowhere = {
        code
        for code in pages
        if f'"{code}"' not in text and not code.startswith(("unsaid.", "pin.")) and code not in {k.code for k in LIMITS}
    }
    assert not nowhere


def test_a_page_says_what_it_means_and_what_mends_it() -> None:
    for code, (title, text) in finding_pages().items():
        assert title
        assert text.endswith(f"`{code}`")
        assert "**What mends it:**" in text or "**Looked at:**" in text
    page = page_of("finding:limit.power")
    assert "kc1.1" in page.text
    assert {one.key for one in beside(page)} == {f"finding:{kind.code}" for kind in LIMITS if kind.name != "power"}
    assert page_of("finding:never.heard").key == "finding"
