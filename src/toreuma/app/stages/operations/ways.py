"""Ways to hold and cut the part that were found, one below the other: what each gives and costs, and the one taken."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QAbstractButton, QVBoxLayout, QWidget

from toreuma.app.forms.format import clock
from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr
from toreuma.core.auto.propose import Proposed
from toreuma.core.spoken import spoken

__all__ = ["Ways"]

ROW_PX, BAR_PX, TICK_PX = 46, 3, 14
MOST = 3
"""Ways that are worth the room: the route itself stands below them."""

COLOURS = {"finished": "ok", "finished but for": "ok", "not finished": "warning", "unsafe": "error"}


class WayRow(QAbstractButton):
    """How it is held, how long it takes with how many tools, and what comes of it."""

    def __init__(self, way: Proposed, words: str, taken: Sequence[str], theme: Theme) -> None:
        super().__init__()
        self.way, self.words, self.theme = way, words, theme
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        title = way.way[:1].upper() + way.way[1:]
        self.setText(title)
        self.setAccessibleName(f"{title}, {self.cost}, {words}")
        self.setToolTip("\n".join(one for one in (title, self.cost, words, way.decided, *taken) if one))

    @property
    def cost(self) -> str:
        count = len(self.way.job.tools)
        return f"{clock(self.way.seconds)} min, {count} {'tool' if count == 1 else 'tools'}"

    def sizeHint(self) -> QSize:
        return QSize(200, ROW_PX)

    def event(self, event: QEvent) -> bool:
        if event.type() in (QEvent.Type.Enter, QEvent.Type.Leave):
            self.update()
        return super().event(event)

    def paintEvent(self, _: QPaintEvent) -> None:
        theme, painter = self.theme, QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        room = QRectF(self.rect()).adjusted(6, 2, -6, -2)
        painter.setPen(theme.colour("accent" if self.isChecked() or self.underMouse() else "line"))
        painter.setBrush(theme.colour("accent_soft" if self.isChecked() else "raised"))
        painter.drawRoundedRect(room, 3, 3)
        if self.hasFocus():
            painter.drawRoundedRect(room.adjusted(2, 2, -2, -2), 2, 2)
        painter.fillRect(
            QRectF(room.left(), room.top() + 3, BAR_PX, room.height() - 6),
            theme.colour(COLOURS.get(self.way.state, "muted")),
        )
        text = room.adjusted(12, 4, -10 - TICK_PX, -4)
        painter.setFont(theme.text_font(12, bold=self.isChecked()))
        painter.setPen(theme.colour("ink"))
        self._line(painter, text, self.text(), Qt.AlignmentFlag.AlignTop)
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("muted"))
        self._line(painter, text, f"{self.cost}: {self.words}", Qt.AlignmentFlag.AlignBottom)
        if self.isChecked():
            icon("ok", theme, "accent", TICK_PX).paint(
                painter, int(room.right()) - TICK_PX - 6, int(room.top()) + 6, TICK_PX, TICK_PX
            )
        painter.end()

    def _line(self, painter: QPainter, room: QRectF, words: str, where: Qt.AlignmentFlag) -> None:
        fits = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, int(room.width()))
        painter.drawText(room, where | Qt.AlignmentFlag.AlignLeft, fits)


class Ways(QWidget):
    """The rows; nothing where only one way was found, or the job is another part."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._shown: tuple[Proposed, ...] = ()
        self.rows: list[WayRow] = []
        self._title = Label()
        self._title.setObjectName("muted")
        self._title.setContentsMargins(12, 6, 12, 2)
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 4)
        self._column.setSpacing(0)
        self._column.addWidget(self._title)
        session.job_changed.connect(self.refresh)
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        for row in self.rows:
            row.theme = theme
            row.update()

    def refresh(self) -> None:
        ways, found = self._session.ways[:MOST], len(self._session.ways)
        some = tr("The best {} of {} ways found").format(len(ways), found)
        self._title.setText(some if found > len(ways) else tr("{} ways found, the best first").format(found))
        if ways != self._shown:
            self._shown = ways
            self._build()
        looking = bool(self._session.offers)
        if looking:
            self._title.setText(tr("Found so far, the best first; still looking"))
        self.setVisible(len(ways) > 1 or looking)
        for row in self.rows:
            row.setChecked(row.way.job == self._session.whole)

    def _build(self) -> None:
        for row in self.rows:
            self._column.removeWidget(row)
            row.deleteLater()
        system = self._session.system
        self.rows = [
            WayRow(way, spoken(way.words, system), [spoken(one, system) for one in way.taken], self._theme)
            for way in self._shown
        ]
        for row in self.rows:
            row.clicked.connect(lambda _=False, way=row.way: self._take(way))
            self._column.addWidget(row)

    def _take(self, way: Proposed) -> None:
        self._session.take_way(way)
        self.refresh()
