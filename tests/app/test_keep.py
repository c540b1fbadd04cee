"""Unsaved work, other windows and other people's saves: told, compared, taken up, never lost."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QSettings, Qt, QTimer
from PySide6.QtWidgets import QApplication, QMessageBox
from pytestqt.qtbot import QtBot

from tests.support.engine import recorded
from tests.support.window import Window
from toreuma.app.session import Session
from toreuma.app.shell.conflict import ConflictDialog
from toreuma.app.shell.shot import settle
from toreuma.core.model import Job
from toreuma.files.jobs import job_text, load_job, print_of, save_job
from toreuma.files.journal import Journal, State, left_behind

Open = Callable[[], Window]


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    return tmp_path / "home"


@pytest.fixture
def another(tmp_path: Path, qtbot: QtBot) -> Iterator[Open]:
    """Opens a window as the next start would."""
    opened: list[Window] = []

    def open_() -> Window:
        window = Window(Session(recorded()), QSettings(str(tmp_path / "s.ini"), QSettings.Format.IniFormat))
        window.resize(1280, 800)
        with qtbot.waitSignal(window.left_work.known, timeout=10_000):
            window.show()
        opened.append(window)
        return window

    yield open_
    for window in opened:
        window.files.may_leave = lambda: True  # type: ignore[method-assign]
        window.close()
        window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def left_by_a_killed_window(state: State) -> Path:
    """A journal as a window leaves it that is ended from outside."""
    journal = Journal()
    journal.put(state)
    assert journal.keep_now()
    path, held = journal.path, journal._held
    assert path is not None
    assert held is not None
    held.let_go()
    journal._held, journal._end = None, 0
    return path


def looked(window: Window, qtbot: QtBot) -> None:
    with qtbot.waitSignal(window.left_work.known, timeout=10_000):
        window.left_work.look()


def test_what_was_not_saved_stands_on_the_first_page_until_it_is_answered(
    another: Open, spear: Job, tmp_path: Path, qtbot: QtBot
) -> None:
    file = tmp_path / "job.toreuma"
    base = save_job(spear, file)
    left_by_a_killed_window(State(spear.changed(name="Almost lost"), file, base))
    left_by_a_killed_window(State(spear.changed(name="Never saved")))
    window = another()
    rows = {row.offer.job.name: row for row in window.first.offers.rows}
    assert set(rows) == {"Almost lost", "Never saved"}
    assert rows["Almost lost"].offer.changes == ("name: Regulating spear → Almost lost",)
    assert "never saved" in rows["Never saved"].offer.changes[0]
    assert rows["Almost lost"].offer.region is not None
    assert rows["Almost lost"].beside.isVisible()
    assert not rows["Never saved"].beside.isVisible()
    window.close()  # closed without an answer, it is offered again
    window = another()
    assert len(window.first.offers.rows) == 2
    row = next(row for row in window.first.offers.rows if row.offer.job.name == "Almost lost")
    with qtbot.waitSignal(window.left_work.known, timeout=10_000):
        qtbot.mouseClick(row.take, Qt.MouseButton.LeftButton)
    assert settle(window.session)
    assert window.session.job is not None
    assert window.session.job.name == "Almost lost"
    assert window.session.path == file
    assert window.session.modified
    assert window.isWindowModified()
    assert not window.at_home
    assert [row.offer.job.name for row in window.first.offers.rows] == ["Never saved"]
    assert [one.state.job.name for one in left_behind()[0]] == ["Never saved"], "this window keeps it now"
    assert window.files.save_to(file)
    assert load_job(file).name == "Almost lost"


def test_a_window_that_opens_a_job_says_that_something_was_left(another: Open, spear: Job, qtbot: QtBot) -> None:
    left_by_a_killed_window(State(spear.changed(name="Almost lost")))
    window = another()
    window.session.show(spear)
    assert settle(window.session)
    looked(window, qtbot)
    assert window.left_work.bar.isVisible()
    window.session.attempt(lambda job: job.changed(name="an edit before the answer"))
    assert window.files.keep.journal.keep_now()
    qtbot.mouseClick(window.left_work.bar.buttons[0], Qt.MouseButton.LeftButton)
    assert window.at_home
    assert [row.offer.job.name for row in window.first.offers.rows] == ["Almost lost"]


def test_two_jobs_without_a_file_are_kept_apart_and_a_dropped_one_stays_away(
    another: Open, spear: Job, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    for name in ("first", "second"):
        left_by_a_killed_window(State(spear.changed(name=name)))
    one, other = another(), another()
    assert len(one.first.offers.rows) == len(other.first.offers.rows) == 2
    monkeypatch.setattr(QMessageBox, "question", lambda *a, **k: QMessageBox.StandardButton.Cancel)
    row = one.first.offers.rows[0]
    qtbot.mouseClick(row.drop, Qt.MouseButton.LeftButton)
    assert len(left_behind()[0]) == 2, "asked again, the answer was no"
    monkeypatch.setattr(QMessageBox, "question", lambda *a, **k: QMessageBox.StandardButton.Discard)
    with qtbot.waitSignal(one.left_work.known, timeout=10_000):
        qtbot.mouseClick(row.drop, Qt.MouseButton.LeftButton)
    assert len(one.first.offers.rows) == 1
    gone = next(r for r in other.first.offers.rows if r.offer.left.path == row.offer.left.path)
    with qtbot.waitSignal(other.left_work.known, timeout=10_000):
        qtbot.mouseClick(gone.take, Qt.MouseButton.LeftButton)
    assert other.session.job is None, "what another window answered is not taken up twice"
    looked(another(), qtbot)
    assert len(left_behind()[0]) == 1


def test_the_file_is_opened_beside_what_was_not_saved(another: Open, spear: Job, tmp_path: Path, qtbot: QtBot) -> None:
    file = tmp_path / "job.toreuma"
    base = save_job(spear, file)
    left_by_a_killed_window(State(spear.changed(name="Almost lost"), file, base))
    window = another()
    before = set(QApplication.topLevelWidgets())
    qtbot.mouseClick(window.first.offers.rows[0].beside, Qt.MouseButton.LeftButton)
    (beside,) = [one for one in set(QApplication.topLevelWidgets()) - before if isinstance(one, type(window).__base__)]  # type: ignore[arg-type]
    try:
        assert window.session.job == spear
        assert beside.session.whole.name == "Almost lost"  # type: ignore[attr-defined]
        assert beside.session.modified  # type: ignore[attr-defined]
    finally:
        beside.files.may_leave = lambda: True  # type: ignore[attr-defined]
        beside.close()


def test_a_save_over_what_somebody_else_saved_is_asked_for_and_both_can_be_kept(
    another: Open, spear: Job, tmp_path: Path, qtbot: QtBot
) -> None:
    file = tmp_path / "job.toreuma"
    save_job(spear, file)
    one, other = another(), another()
    said: list[str] = []
    other.session.message.connect(lambda level, text: said.append(text))
    for window in (one, other):
        window.files.open_job(str(file))
        assert settle(window.session)
    assert any("open in another window" in text for text in said)
    one.session.attempt(lambda job: job.changed(name="theirs"))
    assert one.files.save_to(file)
    qtbot.waitUntil(lambda: other.files.shared.bar.isVisible(), timeout=5_000)
    other.session.attempt(lambda job: job.changed(name="mine"))
    answers = iter(["not now", "both"])
    other.files.shared.ask = lambda path, theirs: next(answers)  # type: ignore[assignment,return-value]
    assert not other.files.save_to(file), "not saved, and so the window would not close"
    assert load_job(file).name == "theirs"
    assert other.session.modified
    assert other.files.save_to(file)
    assert load_job(file).name == "theirs"
    assert other.session.path is not None
    assert other.session.path != file
    assert load_job(other.session.path).name == "mine"


def test_mine_over_theirs_keeps_theirs_beside_it_and_theirs_over_mine_can_be_undone(
    another: Open, spear: Job, tmp_path: Path
) -> None:
    file = tmp_path / "job.toreuma"
    save_job(spear, file)
    window = another()
    window.files.open_job(str(file))
    save_job(spear.changed(name="theirs"), file)
    window.session.attempt(lambda job: job.changed(name="mine"))
    window.files.shared.ask = lambda path, theirs: "theirs"  # type: ignore[assignment,return-value]
    assert not window.files.save_to(file)
    assert window.session.whole is not None
    assert window.session.whole.name == "theirs"
    assert not window.session.modified
    window.session.undo()
    assert window.session.whole.name == "mine"
    save_job(spear.changed(name="theirs again"), file)
    window.files.shared.ask = lambda path, theirs: "mine"  # type: ignore[assignment,return-value]
    assert window.files.save_to(file)
    assert load_job(file).name == "mine"
    assert load_job(file.with_name(file.name + "~")).name == "theirs again"


def test_the_question_shows_both_sides(qtbot: QtBot, spear: Job, tmp_path: Path) -> None:
    elements = spear.part.outside
    wider = (*elements[:2], elements[2].changed(d_mm=elements[2].d_mm + 1), *elements[3:])
    theirs = spear.changed(part=spear.part.changed(outside=wider))
    mine = spear.with_setup(operations=spear.operations[:-1])
    dialog = ConflictDialog(None, tmp_path / "job.toreuma", spear, mine, theirs)
    qtbot.addWidget(dialog)
    assert [dialog.there.item(i).text() for i in range(dialog.there.count())] == [
        f"surface outside 3, diameter: {elements[2].d_mm:g} mm → {elements[2].d_mm + 1:g} mm"
    ]
    assert [dialog.here.item(i).text() for i in range(dialog.here.count())] == [
        f"operation {spear.operations[-1].id}, {spear.operations[-1].name}: taken out"
    ]
    qtbot.mouseClick(dialog.buttons["both"], Qt.MouseButton.LeftButton)
    assert dialog.answer == "both"


def test_a_vanished_folder_and_a_failed_save_never_close_the_window(
    another: Open, spear: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    folder = tmp_path / "jobs"
    folder.mkdir()
    file = folder / "job.toreuma"
    save_job(spear, file)
    window = another()
    window.files.open_job(str(file))
    window.session.attempt(lambda job: job.changed(name="edited"))
    file.unlink()
    folder.rmdir()
    monkeypatch.setattr(QMessageBox, "question", lambda *a, **k: QMessageBox.StandardButton.Save)
    assert not window.close()
    assert window.isVisible()
    assert window.session.modified
    folder.mkdir()
    assert window.close()
    assert load_job(file).name == "edited"
    assert print_of(file) == window.session.base


def test_a_large_job_is_read_beside_the_window_and_can_be_given_up(
    another: Open, spear: Job, tmp_path: Path, qtbot: QtBot
) -> None:
    file = tmp_path / "large.toreuma"
    text = job_text(spear.changed(name="Large"))
    file.write_text(text.replace("{", '{"x-junk": [' + ",".join(["[1, {}]"] * 300_000) + "],", 1))
    window = another()
    window.session.show(spear)
    bar = window.files.opening.bar
    beats: list[bool] = []
    timer = QTimer()
    timer.timeout.connect(lambda: beats.append(bar.isVisible()))
    timer.start(20)
    window.files.open_job(str(file))
    assert bar.isVisible()
    qtbot.mouseClick(window.files.opening.bar.buttons[0], Qt.MouseButton.LeftButton)
    assert not window.files.opening.bar.isVisible()
    beats.clear()
    window.files.open_job(str(file))
    qtbot.waitUntil(window.files.opening.bar.done.isVisible, timeout=60_000)
    qtbot.waitUntil(lambda: window.session.whole is not None and window.session.whole.name == "Large", timeout=60_000)
    assert not window.session.modified
    assert any(beats)  # the window answered while the file was read
    (tmp_path / "bad.toreuma").write_text(text + " " * 500_000 + "{")
    with qtbot.waitSignal(window.session.message, timeout=20_000) as said:
        window.files.open_job(str(tmp_path / "bad.toreuma"))
    assert "line" in said.args[1]


def test_what_is_changed_outside_is_offered_and_can_be_undone(
    another: Open, spear: Job, tmp_path: Path, qtbot: QtBot
) -> None:
    file = tmp_path / "job.toreuma"
    save_job(spear, file)
    window = another()
    window.files.open_job(str(file))
    assert settle(window.session)
    assert not window.files.shared.bar.isVisible()
    save_job(spear.changed(name="theirs"), file)
    qtbot.waitUntil(lambda: window.files.shared.bar.isVisible(), timeout=5_000)
    qtbot.mouseClick(window.files.shared.bar.buttons[0], Qt.MouseButton.LeftButton)
    assert window.session.whole is not None
    assert window.session.whole.name == "theirs"
    assert not window.session.modified
    window.session.undo()
    assert window.session.whole == spear
    assert window.session.modified
    file.write_text("{ not a job any more")
    assert window.session.modified
    window.files.shared.ask = lambda path, theirs: "both" if theirs is None else "not now"  # type: ignore[assignment]
    assert window.files.save_to(file)
    assert file.read_text() == "{ not a job any more"
    assert window.session.path is not None
    assert load_job(window.session.path) == spear


def test_a_full_disk_is_told_and_the_window_stays(
    another: Open, spear: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    file = tmp_path / "job.toreuma"
    save_job(spear, file)
    window = another()
    window.files.open_job(str(file))
    window.session.attempt(lambda job: job.changed(name="edited"))
    assert window.files.keep.journal.keep_now()

    def full(_: int) -> None:
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as patch:
        patch.setattr("os.fsync", full)
        patch.setattr(QMessageBox, "question", lambda *a, **k: QMessageBox.StandardButton.Save)
        window.session.attempt(lambda job: job.changed(name="edited again"))
        assert not window.files.keep.journal.keep_now()
        window.files.keep._on_look()
        assert "No space left" in window._notice.text()
        assert not window.close()
        assert "No space left" in window._notice.text()
    assert load_job(file) == spear
    assert window.session.modified
    assert window.files.save_to(file)
    assert load_job(file).name == "edited again"
