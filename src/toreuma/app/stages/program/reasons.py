"""The program, and the block at the cursor."""

from PySide6.QtWidgets import QComboBox, QPushButton

from toreuma.app.forms.column import heading
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.label import Label
from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job
from toreuma.core.units import show
from toreuma.engine.hand_changes import without_change
from toreuma.engine.library import library

__all__ = ["ProgramReasons"]

CHOICES: tuple[tuple[str, str, list[tuple[str, object]]], ...] = (
    ("How arcs are written", "arcs", [("Arcs with radius R", "R"), ("Arcs with centre I, K", "IK")]),
    ("Cycles or every move", "long_hand", [("Cycles where they are planned", False), ("Every move written", True)]),
    ("Block numbers", "numbering", [("Blocks numbered", "as usual"), ("Numbers only where needed", "none")]),
)
"""How a program may be written: the option of the job, and what there is to choose."""


class ProgramReasons(ReasonsPanel):
    """How arcs are written, what stands at the cursor, and saving."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        session.cursor_changed.connect(self.refresh)

    def show_job(self, job: Job) -> None:
        outcome = self.session.outcome
        fresh = self.start(("program", outcome is None, job.program, self._changes()))
        if fresh:
            self.text("title", "title", "Program")
            self._choices(job)
            self._by_hand()
            self.add(heading("At the cursor"))
        self.text("line", "muted", "")
        if outcome is not None and outcome.timeline.spans:
            moment = outcome.timeline.at(self.session.cursor_s)
            motion = outcome.timeline.spans[moment.index].motion
            self.text("line", "muted", f"Line {motion.line}, station {motion.station}")
            system = self.session.system
            z, r = motion.segment.at(moment.share)
            self.row("x", Evidence("X", "", 2 * r, "mm", measured_on="on diameter"))
            self.row("z", Evidence("Z", "", z, "mm"))
            kind = "Rapid" if motion.is_rapid else f"Feed {show(motion.feed or 0, 'mm/rev', system)}"
            self.text("kind", "muted", kind)
            spindle = motion.spindle
            if spindle.mode == "surface":
                self.text(
                    "spindle",
                    "muted",
                    f"Surface speed {show(spindle.value, 'm/min', system)}, "
                    f"clamp {show(spindle.clamp_rpm or 0, 'rpm', system)}",
                )
            else:
                self.text("spindle", "muted", "Spindle standing")
        if fresh:
            text = QPushButton(tr("Work on it as a text of its own"))
            text.clicked.connect(lambda: self.session.wanted.emit("text_of_program"))
            self.add(text)
            button = QPushButton(tr("Save program…"))
            button.setObjectName("main")
            button.clicked.connect(lambda: self.session.wanted.emit("save_program"))
            caution = Label(
                "Computed starting values. The machine's manual, the chuck's plate, the site's rules and a "
                "trained person come first. Run the first part in single block with rapid turned down."
            )
            caution.setObjectName("muted")
            caution.setWordWrap(True)
            self.column.addSpacing(10)
            self.add(button)
            self.add(caution)
            self.end()

    def _choices(self, job: Job) -> None:
        """How the program is written, changing before the eyes."""
        options = job.program
        languages = [(library().dialect(one).name, one) for one in library().dialects]
        words_of: list[tuple[str, object]] = [(name, one) for name, one in languages]
        for words, field, rows in (("Words of the program", "dialect", words_of), *CHOICES):
            now = getattr(options, field)
            box = QComboBox()
            box.setAccessibleName(tr(words))
            box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            box.setMinimumContentsLength(14)
            for text, value in rows:
                box.addItem(tr(text), value)
            box.setCurrentIndex(max(box.findData(now), 0))
            box.activated.connect(lambda _, box=box, field=field: self._choose(field, box.currentData()))
            self.add(box)

    def _choose(self, field: str, value: object) -> None:
        self.session.attempt(lambda job: job.changed(program=job.program.changed(**{field: value})))

    def _changes(self) -> tuple[object, ...]:
        outcome = self.session.outcome
        made = outcome.written if outcome is not None else None
        return () if made is None else (made.taken, made.open)

    def _by_hand(self) -> None:
        """What a person changed in the text, each to be taken back by itself, and what found no place any more."""
        outcome = self.session.outcome
        made = outcome.written if outcome is not None else None
        if made is None or not (made.taken or made.open):
            return
        self.add(heading("Changed by hand"))
        for one in made.taken:
            operation = outcome.job.operation(one.operation) if outcome is not None and one.operation else None
            name = (operation.name or operation.id) if operation is not None else tr("beginning of the program")
            words = tr("Take the plan's")
            button = QPushButton(f"{words}: {name}")
            button.clicked.connect(lambda _=False, one=one: self.session.attempt(lambda job: without_change(job, one)))
            self.add(button)
        for finding in made.findings:
            self.add(FindingCard(finding, self.session, self.theme))
