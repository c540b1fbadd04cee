"""Right panel of the tools stage: ranked candidates with their reasons, and the line that speaks against the rest."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QProgressBar, QPushButton, QVBoxLayout

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.forms.number import NumberRow
from toreuma.app.session import Session
from toreuma.app.stages.tools.choice import ToolChoice
from toreuma.app.stages.tools.trial_form import TrialForm
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.advise import Candidate, Comparison, Wish, compare
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job
from toreuma.core.plan.turret.stations import free_station, with_tool
from toreuma.core.spoken import q, said, spoken
from toreuma.core.units import System, show

__all__ = ["AdvicePanel"]

MOST_CARDS = 5
MOST_REJECTED = 12
COMPARE_AT = {"finish": (0.12, 0.4)}
COMPARE_ELSE = (0.25, 1.5)
"""Feed (mm/rev) and depth (mm on radius) at which two tools are compared where nothing is planned yet."""


class AdvicePanel(ScrollColumn):
    """Clicking a candidate shows it on the part; its button puts it into the turret and the operation."""

    def __init__(self, session: Session, theme: Theme, choice: ToolChoice) -> None:
        super().__init__()
        self._session, self._theme, self._choice = session, theme, choice
        self.cards: list[CandidateCard] = []
        self.comparing = False
        choice.changed.connect(self._fill)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self._fill()

    def _fill(self) -> None:
        self.clear()
        self.cards = []
        choice, wish = self._choice, self._choice.wish
        if wish is None:
            self._say(
                "muted", choice.problem or "Nothing on this part asks for a tool: draw something on the part stage."
            )
            self.settle()
            return
        self._say("title", wish.words)
        if choice.busy:
            self._say("muted", "Trying every tool that goes into the machine on the part …")
            bar = QProgressBar()
            bar.setTextVisible(False)
            bar.setRange(0, 0)
            self.column.addWidget(bar)
            self.column.addStretch(1)
            self.settle()
            return
        advice = choice.advice
        if advice is None or not advice.candidates:
            self._say("warning", "No tool of rack or catalogue does this.")
        else:
            for index, one in enumerate(advice.candidates[:MOST_CARDS]):
                self._card(index, one)
            if advice.split is not None:
                self._split()
            self._numbers()
            if len(advice.candidates) > 1:
                self._comparison()
            self._trials()
        if advice is not None and advice.rejected:
            self.column.addWidget(heading("Looked at and left"))
            for rival in advice.rejected[:MOST_REJECTED]:
                self._say("plain", rival.title)
                why = spoken(rival.why, self._session.system)
                self._say("muted", why[0].upper() + why[1:])
            more = len(advice.rejected) - MOST_REJECTED
            if more > 0:
                self._say("muted", f"and {more} more")
        self.column.addStretch(1)
        self.settle()

    def _card(self, index: int, one: Candidate) -> None:
        chosen, system = index == self._choice.index, self._session.system
        card = CandidateCard(one, system, chosen, index == 0, lambda: self._choice.look_at(index))
        card.take.clicked.connect(lambda: self.take(index))
        self.cards.append(card)
        self.column.addWidget(card)

    def _split(self) -> None:
        advice = self._choice.advice
        assert advice is not None
        assert advice.split is not None
        split, system = advice.split, self._session.system
        self.column.addWidget(heading("Better with a second, slim tool"))
        start, end = (show(z, "mm", system, trim=True) for z in (split.from_z, split.to_z))
        area = show(split.left_mm2, "mm2", system, decimals=1)
        self._say("plain", f"{split.candidate.title}, from Z {start} to Z {end}: what the first leaves there, {area}")
        button = QPushButton(tr("Put the slim tool in as well"))
        button.clicked.connect(self.take_split)
        self.column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)

    def _numbers(self) -> None:
        view = self._choice.view
        if view is None:
            return
        self.column.addWidget(heading("The one shown on the part"))
        for evidence in view.numbers:
            row = NumberRow(evidence, self._theme, None)
            row.show_evidence(evidence, self._session.system)
            row.folded.connect(self.settle)
            self.column.addWidget(row)
        for number, spot in enumerate(view.spots, 1):
            area = show(spot.area_mm2, "mm2", self._session.system, decimals=2)
            self._say("muted", f"{number}  {area}: {spoken(spot.words, self._session.system)}")

    def _comparison(self) -> None:
        button = QPushButton("Hide the comparison" if self.comparing else "Compare with the first")
        button.clicked.connect(self._toggle)
        self.column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
        job, choice = self._session.job, self._choice
        first = choice.advice.best if choice.advice else None
        other, wish = choice.candidate, choice.wish
        if not self.comparing or job is None or first is None or other is None or wish is None or wish.surface is None:
            return
        if other is first:
            assert choice.advice is not None
            other = choice.advice.candidates[1]
        feed, depth = self._cut(wish)
        table = compare(job, self._session.scene_of(job), first.tool, other.tool, wish.surface, feed, depth)
        self.column.addWidget(_table(table, self._session.system, feed, depth))

    def _cut(self, wish: Wish) -> tuple[float, float]:
        """Feed and depth of the planned operation of this kind."""
        plan = self._session.outcome.plan if self._session.outcome is not None else None
        for planned in plan.operations if plan is not None else ():
            feed, depth = planned.figures.feed_mm_rev, planned.figures.ap_mm
            tool = plan.job.tool(planned.operation.tool) if plan is not None else None
            if feed and depth and wish.is_cut_by(planned.operation, tool):
                return feed, depth
        return COMPARE_AT.get(wish.use, COMPARE_ELSE)

    def _trials(self) -> None:
        """What was seen of this tool on this cut, and a form for what was seen now."""
        job, one, wish = self._session.job, self._choice.candidate, self._choice.wish
        if job is None or one is None or wish is None:
            return
        self.column.addWidget(heading("Tried on this cut"))
        seen = [trial for trial in job.trials if trial.cut == wish.words]
        for trial in seen:
            words = ", ".join(w for w in (trial.chip, trial.burr, trial.noise, trial.finish) if w)
            cut = said(
                "{}, at {} and {} on radius: {}", trial.tool, q(trial.feed_mm_rev, "mm/rev", ".3g"),
                q(trial.ap_mm, "mm", ".3g"), words or "nothing noted",
            )  # fmt: skip
            self._say("plain", spoken(cut, self._session.system))
        self.trial = TrialForm()
        self.trial.kept.connect(lambda fields: self._keep_trial(one.title, wish, fields))
        self.column.addWidget(self.trial)

    def _keep_trial(self, tool: str, wish: Wish, fields: dict[str, str]) -> None:
        feed, depth = self._cut(wish)
        trial = {"tool": tool, "cut": wish.words, "feed_mm_rev": feed, "ap_mm": depth, **fields}
        self._session.attempt(lambda j: j.changed(trials=(*j.trials, trial)))
        self._fill()

    def _toggle(self) -> None:
        self.comparing = not self.comparing
        self._fill()

    def take(self, index: int) -> None:
        """Put a candidate into a free station and give it to the operations that cut this."""
        advice, wish = self._choice.advice, self._choice.wish
        if advice is not None and wish is not None:
            self._take(advice.candidates[index], wish)

    def take_split(self) -> None:
        """Put the slim tool of the split into a free station."""
        advice = self._choice.advice
        if advice is not None and advice.split is not None:
            self._take(advice.split.candidate, None)

    def _take(self, one: Candidate, wish: Wish | None) -> None:
        job = self._session.job
        if job is None:
            return
        station = free_station(job)
        if station is None and not one.in_turret:
            self._session.message.emit("error", "every station is taken: take a tool out first")
            return
        error = self._session.attempt(lambda j: _with(j, one, station or 1, wish))
        if error is not None:
            self._session.message.emit("error", str(error))
        self._choice.renew()

    def _say(self, name: str, text: str) -> None:
        label = Label(text)
        label.setObjectName(name)
        label.setWordWrap(True)
        self.column.addWidget(label)


def _with(job: Job, one: Candidate, station: int, wish: Wish | None) -> Job:
    """The job with the tool in it, and the first operation that cuts the wish cutting with it."""
    same = next((tool for tool in job.tools if tool.name == one.tool.name), None)
    changed, tool_id = (job, same.id) if same is not None else with_tool(job, one.tool, station)
    cutting = (op for op in changed.operations if wish is not None and wish.is_cut_by(op, changed.tool(op.tool)))
    target = next((op.id for op in cutting), None)
    return changed if target is None else changed.with_operation(target, lambda op: op.changed(tool=tool_id))


def _table(table: Comparison, system: System, feed: float, depth: float) -> QFrame:
    """Both tools side by side."""
    frame = QFrame()
    frame.setObjectName("card")
    grid = QGridLayout(frame)
    grid.setContentsMargins(8, 6, 8, 8)
    grid.setHorizontalSpacing(10)
    cut = Label(f"At {show(feed, 'mm/rev', system)} and {show(depth, 'mm', system)} deep on radius")
    cut.setObjectName("muted")
    grid.addWidget(cut, 0, 0, 1, 3)
    for column, name in enumerate(table.names, 1):
        label = Label("\n".join(name.split(" in ")[0].split("-")))
        label.setObjectName("muted")
        grid.addWidget(label, 1, column, Qt.AlignmentFlag.AlignRight)
    for row, pair in enumerate(table.rows, 2):
        known = next(value for value in pair if value is not None)
        words = Label(known.name[0].upper() + known.name[1:])
        words.setWordWrap(True)
        words.setToolTip(known.formula)
        grid.addWidget(words, row, 0)
        for column, value in enumerate(pair, 1):
            grid.addWidget(Label(_shown(value, system)), row, column, Qt.AlignmentFlag.AlignRight)
    grid.setColumnStretch(0, 1)
    return frame


def _shown(value: Evidence | None, system: System) -> str:
    return "–" if value is None else str(show(value.number, value.unit, system)).strip()


class CandidateCard(QFrame):
    """One candidate: codes, why, and why not."""

    def __init__(self, one: Candidate, system: System, chosen: bool, best: bool, look: Callable[[], None]) -> None:
        super().__init__()
        self.setObjectName("notice" if chosen else "card")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(one.title)
        self._look = look
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 6, 8, 7)
        column.setSpacing(2)
        head = QHBoxLayout()
        title = Label("\n".join(one.codes) if best or chosen else one.title)
        title.setWordWrap(True)
        title.setObjectName("code")
        head.addWidget(title, 1)
        where = "in the turret" if one.in_turret else "on my rack" if one.on_rack else ""
        place = Label(where)
        place.setObjectName("ok")
        head.addWidget(place)
        column.addLayout(head)
        for text in one.reasons if best or chosen else ():
            words = spoken(text, system)
            label = Label(words[0].upper() + words[1:])
            label.setWordWrap(True)
            column.addWidget(label)
        if one.against:
            words = spoken(one.against if chosen else said("{}; {}", one.reasons[0], one.against), system)
            against = Label(words[0].upper() + words[1:])
            against.setObjectName("muted")
            against.setWordWrap(True)
            column.addWidget(against)
        self.take = QPushButton("Use this one" if one.in_turret else "Put it in the turret")
        self.take.setVisible(best or chosen)
        column.addWidget(self.take, 0, Qt.AlignmentFlag.AlignLeft)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._look()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self._look()
        else:
            super().keyPressEvent(event)
