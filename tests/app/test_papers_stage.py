"""The papers stage in the real window: pages, choices, files, and what stands there while there are none."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit
from pytestqt.qtbot import QtBot

from tests.support.engine import recorded
from tests.support.window import Window
from toreuma.app.stages.papers.stage import PapersStage, print_pages
from toreuma.core.errors import ToreumaError
from toreuma.core.model.identity import revision_of
from toreuma.papers.pdf import Pages


@pytest.fixture
def papers(window: Window, qtbot: QtBot) -> PapersStage:
    """The stage with its pages made."""
    stage = window.at(PapersStage)
    stage.maker.engine = recorded()
    QTest.keyClick(window, Qt.Key.Key_9, Qt.KeyboardModifier.ControlModifier)
    assert window.stage == "papers"
    made(stage, qtbot)
    return stage


def made(stage: PapersStage, qtbot: QtBot) -> None:
    qtbot.waitUntil(lambda: stage.maker.settled and not stage.maker.busy, timeout=60_000)


def words(stage: PapersStage) -> list[str]:
    assert stage.maker.made is not None
    pages = Pages(stage.maker.made.pdf)
    found = [pages.text(number) for number in range(len(pages.sizes))]
    pages.close()
    return found


def test_pages_stand_in_the_middle_and_scroll_and_grow(papers: PapersStage, window: Window) -> None:
    view = papers.view
    assert view.isVisible()
    assert view.count == len(words(papers)) >= 6
    assert view.words == ""
    assert not window.ribbon.isVisible()
    assert view.page == 1
    view.go_to(3)
    assert view.page == 3
    before = view.verticalScrollBar().maximum()
    view.zoom_by(1.5)
    assert view.verticalScrollBar().maximum() > 1.3 * before
    papers.fit()
    assert view.zoom == 1.0
    picture = view.grab().toImage()
    dark = sum(
        picture.pixelColor(x, y).lightness() < 60 for x in range(0, picture.width(), 3) for y in range(0, 700, 3)
    )
    assert dark > 200  # ink, not an empty page


def test_sheets_are_chosen_and_the_last_one_stays(papers: PapersStage, qtbot: QtBot) -> None:
    for key in ("setup", "operations", "inspection", "run"):
        papers.panel.boxes[key].click()
    made(papers, qtbot)
    assert papers.maker.wanted.sheets == ("tools",)
    assert all(one.startswith("Tool list") for one in words(papers)[:1])
    papers.panel.boxes["tools"].click()
    assert papers.panel.boxes["tools"].isChecked()
    assert papers.maker.wanted.sheets == ("tools",)
    papers.panel.boxes["inspection"].click()
    made(papers, qtbot)
    QApplication.processEvents()
    assert words(papers)[papers.view.page - 1].startswith("Inspection sheet")


def test_number_and_revision_go_into_the_job_and_onto_every_page(
    papers: PapersStage, window: Window, qtbot: QtBot
) -> None:
    for key, typed in (("number", "W-1207"), ("revision", "C")):
        entry = papers.panel.lines[key]
        assert isinstance(entry, QLineEdit)
        entry.setFocus()
        QTest.keyClicks(entry, typed)
        QTest.keyClick(entry, Qt.Key.Key_Return)
    job = window.session.whole
    assert job is not None
    assert (job.number, job.revision) == ("W-1207", "C")
    assert not papers.maker.current
    assert not papers.panel.doings["pdf"].isEnabled()
    made(papers, qtbot)
    assert all(f"revision {revision_of(job)}" in one for one in words(papers))
    assert "W-1207" in words(papers)[0]
    window.session.undo()
    assert window.session.whole is not None
    assert window.session.whole.revision == ""


def test_units_and_paper_of_the_sheets_are_their_own(papers: PapersStage, window: Window, qtbot: QtBot) -> None:
    box = papers.panel.choices["units"]
    box.setCurrentIndex(box.findData("inch"))
    box.activated.emit(box.currentIndex())
    paper = papers.panel.choices["paper"]
    paper.setCurrentIndex(paper.findData("Letter"))
    paper.activated.emit(paper.currentIndex())
    made(papers, qtbot)
    assert "3.622 in" in words(papers)[0].replace("3.6220", "3.622")  # 92 mm of stick-out
    assert papers.maker.made is not None
    pages = Pages(papers.maker.made.pdf)
    assert pages.sizes[0] == pytest.approx((612, 792), abs=0.5)
    pages.close()
    assert window.session.whole is not None
    assert window.session.whole.units == "mm"


def test_pages_are_saved_and_what_cannot_be_written_is_told(
    papers: PapersStage, window: Window, tmp_path: Path
) -> None:
    assert papers.save(tmp_path / "spear.pdf")
    assert (tmp_path / "spear.pdf").read_bytes().startswith(b"%PDF")
    assert papers.save(tmp_path / "spear.html")
    assert "<!DOCTYPE html>" in (tmp_path / "spear.html").read_text("utf-8")[:40]
    told: list[str] = []
    window.session.message.connect(lambda level, text: told.append(f"{level}: {text}"))
    assert not papers.save(tmp_path / "spear.txt")
    assert not papers.save(tmp_path / "nowhere" / "spear.pdf")
    assert [one.startswith("error: ") for one in told] == [True, True]


def test_printing_sends_every_page_as_large_as_it_is(papers: PapersStage, tmp_path: Path) -> None:
    assert papers.maker.made is not None
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "out.pdf"))
    print_pages(papers.maker.made.pdf, printer)
    printed, meant = Pages((tmp_path / "out.pdf").read_bytes()), Pages(papers.maker.made.pdf)
    assert len(printed.sizes) == len(meant.sizes)
    for a, b in zip(printed.sizes, meant.sizes, strict=True):
        assert a == pytest.approx(b, abs=2.0)
    printed.close()
    meant.close()


def test_leaving_gives_up_what_is_being_made(papers: PapersStage, window: Window, settled: Callable[[], None]) -> None:
    kept = papers.maker.made
    window.session.attempt(lambda job: job.changed(revision="D"))
    window.set_stage("proof")
    assert not papers.maker.busy
    assert papers.maker.made is kept
    assert not papers.maker.current


def test_a_fault_stands_where_the_pages_would(
    papers: PapersStage, window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object, **__: object) -> bytes:
        raise ToreumaError("papers", "the library that makes PDF cannot be loaded", "take HTML")

    monkeypatch.setattr("toreuma.app.stages.papers.made.pdf_apart", broken)
    window.session.attempt(lambda job: job.changed(revision="E"))
    qtbot.waitUntil(lambda: papers.maker.problem is not None and not papers.maker.busy, timeout=60_000)
    assert papers.view.words == "papers: the library that makes PDF cannot be loaded; take HTML"
    assert not papers.panel.doings["print"].isEnabled()
