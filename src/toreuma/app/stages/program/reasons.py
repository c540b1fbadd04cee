"""The program, and the block at the cursor."""

from PySide6.QtWidgets import QComboBox, QPushButton

from toreuma.app.forms.column import heading
from toreuma.app.forms.label import Label
from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job
from toreuma.core.units import show

__all__ = ["ProgramReasons"]


class ProgramReasons(ReasonsPanel):
    """How arcs are written, what stands at the cursor, and saving."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        session.cursor_changed.connect(self.refresh)

    def show_job(self, job: Job) -> None:
        outcome = self.session.outcome
        fresh = self.start(("program", outcome is None))
        if fresh:
            self.text("title", "title", "Program")
            arcs = QComboBox()
            arcs.setAccessibleName(tr("How arcs are written"))
            arcs.addItem("Arcs with radius R", "R")
            arcs.addItem("Arcs with centre I, K", "IK")
            arcs.setCurrentIndex(arcs.findData(job.program.arcs))
            arcs.activated.connect(
                lambda _: self.session.attempt(lambda j: j.changed(program=j.program.changed(arcs=arcs.currentData())))
            )
            self.add(arcs)
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
