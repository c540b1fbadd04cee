"""The chosen line below the picture: what it does in one sentence, what is in force there, and since which line."""

from PySide6.QtWidgets import QFrame, QVBoxLayout

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.core.read.places import label_of
from toreuma.core.read.sentence import sentence_of
from toreuma.core.read.spans import spans_of
from toreuma.core.read.state import InForce
from toreuma.core.spoken import spoken
from toreuma.core.units import System, show
from toreuma.engine.study import Study

__all__ = ["LineStrip"]


class LineStrip(QFrame):
    """Two lines of words; nothing to press."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("header")
        self.sentence, self.force = Label(), Label()
        self.sentence.setWordWrap(True)
        self.force.setWordWrap(True)
        self.force.setObjectName("muted")
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 7, 12, 8)
        column.setSpacing(3)
        column.addWidget(self.sentence)
        column.addWidget(self.force)

    def show_line(self, study: Study | None, line: int, system: System) -> None:
        if study is None:
            return
        lines = study.text.split("\n")
        text = lines[line - 1] if 0 < line <= len(lines) else ""
        words = study.machine.own_words if study.machine is not None else None
        sentence = sentence_of(spans_of(text, study.dialect, words), study.motions_of(line))
        self.sentence.setText(f"{tr('Line')} {line}:  {spoken(sentence, system)}")
        self.force.setText("    ".join(_in_force(study.program.in_force_at(line), system)))


def _in_force(now: dict[str, InForce], system: System) -> list[str]:
    """Feed, speed and the rest, each with the line it was said in."""
    found = []
    since = tr("from line")

    def value(name: str) -> object:
        return now[name].value if name in now else None

    feed = value("feed")
    if isinstance(feed, int | float):
        per_minute = value("feed_mode") == "per minute"
        found.append(
            f"F {show(feed, 'mm/min' if per_minute else 'mm/rev', system, trim=True)} {since} {now['feed'].line}"
        )
    speed = value("speed")
    if isinstance(speed, int | float):
        mode = {"surface": tr("surface speed"), "fixed": tr("turns a minute")}.get(str(value("speed_mode")), "")
        found.append(f"S{speed:g} {mode} {since} {now['speed'].line}")
    clamp = value("clamp")
    if isinstance(clamp, int | float):
        found.append(f"{tr('clamp')} {clamp:g} rpm {since} {now['clamp'].line}")
    if value("station"):
        found.append(f"{tr('station')} {value('station')} {since} {now['station'].line}")
    for name, words in (("spindle", "spindle"), ("side", "nose to the"), ("coolant", "coolant")):
        if value(name) not in (None, "", "off"):
            found.append(f"{tr(words)} {tr(str(value(name)))} {since} {now[name].line}")
    if value("datum"):
        found.append(f"{tr('datum')} {label_of(str(value('datum')))} {since} {now['datum'].line}")
    if value("distances") == "incremental":
        found.append(f"{tr('numbers are ways')} {since} {now['distances'].line}")
    return found
