"""The section canvas: what is meant above the axis, what is there below it."""

import math
from contextlib import suppress
from itertools import pairwise
from typing import Any

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import (
    QContextMenuEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPixmap,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QMenu, QSizePolicy, QWidget

from toreuma.app.forms.format import both_ways, clock
from toreuma.app.picture.caliper import Caliper
from toreuma.app.picture.dimension_entry import DimensionEntry
from toreuma.app.picture.dimensions import Dimension, DimensionPainter
from toreuma.app.picture.dragging import DimensionDrag
from toreuma.app.picture.look import Look
from toreuma.app.picture.paint import Painter, PassLines
from toreuma.app.picture.preview import paint_preview
from toreuma.app.picture.underlay import Underlay
from toreuma.app.picture.view import View
from toreuma.app.session import Session, solids_of
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.symbols import Symbol, symbols_of
from toreuma.core.model import Job
from toreuma.core.plan.hold.standing import compliance, held_piece
from toreuma.core.scene import Scene
from toreuma.shipped.library import known_threads

__all__ = ["SectionCanvas"]

MENU = (
    ("Fit the picture", "F", "fit"),
    ("Caliper", "M", "caliper"),
    ("Say the part in words", "Ctrl+P", "line"),
    ("Copy what is selected", "Ctrl+C", "copy"),
    ("Paste", "Ctrl+V", "paste"),
    ("Help on this", "F1", "help"),
)
"""Actions of the window that are offered under the pointer."""

NARROW_PX = 420
"""Below this width the key of the load needs the room of a caption."""

MARGIN_PX = 34
PICK_PX = 7


class SectionCanvas(QWidget):
    """Draws the session to scale. Wheel zooms at the pointer, dragging moves, F fits, M measures."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self._theme = theme
        self._look = Look()
        self._view: View | None = None
        self._fitted = True
        self._grabbed: QPointF | None = None
        self._pressed: QPointF | None = None
        self._pointer: QPointF | None = None
        self._finding: Finding | None = None
        self._scene: Scene | None = None
        self._scene_job: Job | None = None
        self._caliper = Caliper()
        self._lines = PassLines()
        self._still: tuple[tuple[Any, ...], QPixmap] | None = None
        self._dimensions: list[Dimension] = []
        self._symbols_of: tuple[Scene | None, list[Symbol]] = (None, [])
        self.dimension = DimensionEntry(self, session)
        self.drag = DimensionDrag(session)
        self.underlay: Underlay | None = None
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(320, 240)
        self.setAccessibleName(tr("Section of part and stock"))
        session.job_changed.connect(self._on_job)
        session.outcome_changed.connect(self._on_outcome)
        for signal in (session.proof_changed, session.selection_changed, session.cursor_changed):
            signal.connect(self.update)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        """What can be done here, each with its key."""
        menu = QMenu(self)
        for words, key, name in MENU:
            menu.addAction(f"{tr(words)}\t{key}").triggered.connect(
                lambda _=False, n=name: self._session.wanted.emit(n)
            )
        menu.exec(event.globalPos())

    def show_look(self, look: Look) -> None:
        """Show what a stage wants to see."""
        if look.extent is not self._look.extent and self._fitted:
            self._view = None
        self._look, self._dimensions, self._finding = look, [], None
        self.dimension.close_up()
        self.update()

    def show_finding(self, finding: Finding | None) -> None:
        self._finding = finding
        self.update()

    @property
    def caliper(self) -> Caliper:
        return self._caliper

    def toggle_caliper(self) -> None:
        self._caliper.toggle()
        self.setCursor(Qt.CursorShape.CrossCursor if self._caliper.active else Qt.CursorShape.ArrowCursor)
        self.update()

    def fit(self) -> None:
        """Show part, front of the blank and front of the jaws."""
        self._fitted = True
        self._view = None
        self.update()

    def zoom_to(self, z0: float, z1: float, r: float) -> None:
        self._view = View.fitting(z0, z1, r, self._room())
        self._fitted = False
        self.update()

    # Data

    def _on_job(self) -> None:
        """Draw a changed part, blank or hold at once; what is cut from it follows when it is planned."""
        job = self._session.job
        if job is None:
            self._scene = self._scene_job = None
        elif self._scene_job is None or solids_of(job) != solids_of(self._scene_job):
            with suppress(ToreumaError):  # the plan says what is wrong with it
                self._scene, self._scene_job = self._session.scene_of(job), job
        elif self._session.outcome is not None and self._look.tool:
            return  # only operations changed: there is nothing new to draw before they are planned
        self.update()

    def _on_outcome(self) -> None:
        outcome = self._session.outcome
        if outcome is not None:
            self._scene, self._scene_job = outcome.plan.scene, outcome.job
        self.update()

    def _room(self) -> QRectF:
        return QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX)

    def _current_view(self) -> View | None:
        if self._scene is None:
            if self._session.job is None or self._session.problem is not None:
                return None
            self._on_job()
            if self._scene is None:
                return None
        if self._view is None or self._fitted:
            scene = self._scene
            wanted = self._look.extent(scene) if self._look.extent is not None else None
            if wanted is not None:
                self._view = View.fitting(*wanted, self._room().adjusted(0, self._look.headroom_px, 0, 0))
                return self._view
            self._view = View.fitting(
                min(scene.profile.back_z, scene.jaw_face_z) - 8.0,
                scene.stock_front_z + 6.0,
                1.25 * scene.stock_r + 4.0,
                self._room(),
            )
        return self._view

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self._theme.colour("paper"))
        session = self._session
        if session.preview is not None:
            before = self._scene.part if self._scene is not None and session.job is not None else None
            frame = QRectF(self.rect())
            inches = session.job is None and session.preview.units == "inch"
            system = "inch" if inches else session.system
            paint_preview(painter, self._room(), frame, self._theme, system, session.preview, before)
            return
        view = self._current_view()
        if view is None or self._scene is None:
            self._empty(painter)
            return
        if self.underlay is not None and self._look.sizes:
            self.underlay.paint(painter, view, QRectF(self.rect()), self._theme)
            if not self.underlay.placed:
                return
        draw = Painter(painter, view, self._theme, self._session.system, QRectF(self.rect()))
        self._still_upper(painter, view, self._scene)
        self._lower(draw, self._scene)
        draw.workholding(self._scene)
        if self._look.pieces is not None:
            self._look.pieces(draw, self._scene)
        draw.axis()
        if self._look.sizes and session.job is not None:
            symbols = self._symbols(self._scene)
            self._dimensions = DimensionPainter(draw).paint(self._scene, session.job.part, symbols, session.selection)
        if self._look.over is not None:
            self._look.over(draw, self._scene)
        self._tool(draw)
        self._marks(draw)
        self._frame(draw)
        painter.end()

    def _empty(self, painter: QPainter) -> None:
        problem = self._session.problem
        text = str(problem) if problem else "Open a job to see its section"
        painter.setPen(self._theme.colour("error" if problem else "muted"))
        painter.setFont(self._theme.text_font())
        painter.drawText(self._room(), Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, text)

    def _still_upper(self, painter: QPainter, view: View, scene: Scene) -> None:
        """What is meant, kept as a picture: it stands still while the cursor of time or the pointer moves."""
        session = self._session
        key = (scene, session.outcome, session.selection, view, self._look, self._theme, session.system, self.size())
        if self._still is None or not all(a is b or a == b for a, b in zip(key[2:], self._still[0][2:], strict=True)):
            self._still = None
        if self._still is None or any(a is not b for a, b in zip(key[:2], self._still[0][:2], strict=True)):
            ratio = self.devicePixelRatioF()
            picture = QPixmap((QSizeF(self.size()) * ratio).toSize())
            picture.setDevicePixelRatio(ratio)
            picture.fill(Qt.GlobalColor.transparent)
            layer = QPainter(picture)
            layer.setRenderHint(QPainter.RenderHint.Antialiasing)
            self._upper(Painter(layer, view, self._theme, session.system, QRectF(self.rect()), self._lines), scene)
            layer.end()
            self._still = (key, picture)
        painter.drawPixmap(0, 0, self._still[1])

    def _upper(self, draw: Painter, scene: Scene) -> None:
        draw.blank(scene)
        draw.part(scene)
        session, outcome = self._session, self._session.outcome
        chosen = session.selection
        draw.symbols(self._symbols(scene), chosen.feature)
        if outcome is not None and self._look.passes:
            known = chosen.operation is not None and outcome.plan.of(chosen.operation) is not None
            for planned in outcome.plan.operations:
                selected = planned.operation.id == chosen.operation
                draw.passes(planned, selected, faint=known and not selected)
                if selected:
                    draw.travel(planned)
        parts = self._chosen_segments(scene)
        if parts:
            draw.highlight(parts)
        if chosen.feature is not None:
            void = next((one for index, one in scene.shape.voids if index == chosen.feature), None)
            if void is not None:
                draw.outline(void.cut.intersection(scene.shape.solid), "accent", 3.0)

    def _symbols(self, scene: Scene) -> list[Symbol]:
        """Symbols of the part's features, made anew only when the part changes."""
        if scene is not self._symbols_of[0]:
            part = self._scene_job.part if self._scene_job else None
            threads = known_threads(part) if part else {}
            self._symbols_of = (scene, symbols_of(part, scene.shape, threads) if part else [])
        return self._symbols_of[1]

    def _chosen_segments(self, scene: Scene) -> list[Segment]:
        """The stretch of the outside or the bore that is selected."""
        chosen = self._session.selection
        chain = scene.profile if chosen.side == "outside" else scene.shape.bore
        if chosen.element is None or chain is None:
            return []
        rows = zip(chain.segments, chain.elements, chain.corners, strict=True)
        return [segment for segment, element, corner in rows if element == chosen.element and not corner]

    def _lower(self, draw: Painter, scene: Scene) -> None:
        session = self._session
        draw.metal(self._metal(scene), scene.stock)
        if session.outcome is not None and self._look.opened:
            open_now = session.outcome.opened_at(session.cursor_s)
            draw.opened(one for one in self._symbols(scene) if one.feature in open_now and one.milled)
        draw.part_ghost(scene)
        if self._look.bending:
            self._bending(draw, scene)
        if self._look.leftover and session.proof is not None:
            draw.leftover(session.proof.leftover, session.proof.declared, session.proof.gouged)

    def _metal(self, scene: Scene) -> Region:
        """What is there: the blank, the piece before it is parted off, or what the cursor has left."""
        session = self._session
        if self._look.metal == "blank" or session.replay is None or session.outcome is None:
            return scene.stock
        if self._look.metal == "held" and session.at_end:
            parted = next((op for op in session.outcome.plan.operations if op.operation.kind == "part_off"), None)
            if parted is not None:
                return parted.before
        return session.replay.stock_at(session.cursor_s)

    def _bending(self, draw: Painter, scene: Scene) -> None:
        """How the metal at the cursor gives way, drawn in the free room below it; and the second grip."""
        session = self._session
        if session.job is None:
            return
        along = compliance(session.job, scene, held_piece(self._metal(scene), scene.jaw_face_z))
        if along is not None:
            base = min(draw.view.point(0, -scene.stock_r).y() + 96, self.height() - 86)
            draw.bending(along, base, 56)
        second = session.outcome.plan.second if session.outcome else None
        if second is not None and second.d_mm > 0:
            draw.second_grip(*second.gripped, second.d_mm / 2)

    def _marks(self, draw: Painter) -> None:
        """Flags of findings, over everything else: the place may lie in the jaws."""
        session = self._session
        if self._look.flags and session.proof is not None:
            shown = [one for one in session.findings() if one.severity in self._look.flags]
            draw.marks(shown, self._finding.at if self._finding else None)

    def _tool(self, draw: Painter) -> None:
        session = self._session
        if not self._look.tool or session.replay is None:
            return
        outline = session.replay.tool_at(session.cursor_s)
        if outline is not None:
            draw.tool(*outline)

    def _frame(self, draw: Painter) -> None:
        session = self._session
        if self.width() >= NARROW_PX:
            draw.caption(QPointF(12, 20), tr("Above the axis: what is meant"))
        cuts = session.outcome is not None and session.outcome.timeline.total_s > 0
        at = "at the end" if session.at_end else f"at {clock(session.cursor_s)}"
        if self._look.metal == "held" and session.at_end:
            at = "before it is parted off"
        below = "the blank" if self._look.metal == "blank" or not cuts else f"the metal {at}"
        draw.caption(QPointF(12, self.height() - 30), f"Below: {below}")
        if self._look.shade:
            draw.load_key(QPointF(self.width() - 18, 20), self._look.shade)
        draw.scale_bar(QPointF(self.width() - 16, self.height() - 30))
        if self._pointer is not None:
            z, r = draw.view.place(self._pointer)
            draw.p.setFont(self._theme.number_font(11))
            draw.p.setPen(self._theme.colour("ink"))
            draw.p.drawText(QPointF(12, self.height() - 10), both_ways(z, r, session.system))
        self._caliper.paint(draw)

    # Pointer and keys

    def wheelEvent(self, event: QWheelEvent) -> None:
        view = self._current_view()
        if view is not None:
            self._fitted = False
            self._view = view.zoomed(1.2 ** (event.angleDelta().y() / 120), event.position())
            self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = self._grabbed = event.position()
        at = event.position()
        hit = next((one for one in self._dimensions if one.box.contains(at)), None) if self._look.sizes else None
        self.drag.begin(hit if event.button() == Qt.MouseButton.LeftButton else None, at)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self._pointer = event.position()
        view = self._current_view()
        if view is not None and self._grabbed is not None and self._pressed is not None:
            far = (event.position() - self._pressed).manhattanLength() > 4
            if far and event.buttons() != Qt.MouseButton.NoButton:
                self._fitted, self._view = False, view
                if self.drag.holds:
                    self.drag.move(event.position(), view.scale)
                else:
                    self._view = view.moved(event.position() - self._grabbed)
                self._grabbed = event.position()
        elif view is not None and self._scene is not None:
            self._caliper.hover(view, event.position(), self._scene.profile)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        still = self._pressed is not None and (event.position() - self._pressed).manhattanLength() <= 4
        self._grabbed = self._pressed = None
        view = self._current_view()
        if self.drag.end():
            return
        if self.underlay is not None and not self.underlay.placed and self._look.sizes:
            if self.underlay.click(event.position(), QRectF(self.rect())):
                self._session.wanted.emit("underlay_length")
            self.update()
            return
        if not still or event.button() != Qt.MouseButton.LeftButton or view is None:
            return
        if self._caliper.active and self._scene is not None:
            self._caliper.click(view, event.position(), self._scene.profile)
            self.update()
        else:
            self._pick(view, event.position())

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        view, scene = self._current_view(), self._scene
        if view is None or scene is None:
            return
        found = self._nearest(view, event.position(), [((i,), [s]) for i, s in enumerate(scene.profile.segments)])
        if found is None:
            self.fit()
            return
        segment = scene.profile.segments[found[0]]
        z = (segment.start[0], segment.end[0])
        self.zoom_to(min(z) - 3, max(z) + 3, max(segment.start[1], segment.end[1]) + 3)

    def leaveEvent(self, event: object) -> None:
        self._pointer = None
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._fitted:
            self._view = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        view = self._current_view()
        steps = {Qt.Key.Key_Plus: 1.25, Qt.Key.Key_Minus: 0.8}
        if view is not None and event.key() in steps:
            self._fitted = False
            self._view = view.zoomed(steps[Qt.Key(event.key())], QPointF(self.rect().center()))
            self.update()
        elif event.key() == Qt.Key.Key_Escape and self._caliper.active:
            self.toggle_caliper()
        else:
            super().keyPressEvent(event)

    def _pick(self, view: View, at: QPointF) -> None:
        """Select the surface or the operation under the pointer."""
        session, outcome, scene = self._session, self._session.outcome, self._scene
        if scene is None:
            return
        if self._look.chooses == "surface" or outcome is None:
            self._pick_surface(view, at, scene)
            return
        lines = [
            ((planned.operation.id,), list(one.segments))
            for planned in outcome.plan.operations
            for one in planned.cuts.passes
        ]
        hit = self._nearest(view, at, lines)
        session.select(operation=hit[0] if hit else None)

    def _pick_surface(self, view: View, at: QPointF, scene: Scene) -> None:
        """Open the dimension under the pointer, or select the surface or feature there."""
        session, job = self._session, self._session.job
        hit = next((one for one in self._dimensions if one.box.contains(at)), None)
        if hit is not None:
            if hit.side == "feature":
                session.select(feature=hit.element)
            else:
                session.select(element=hit.element, side=hit.side)
            self.dimension.open(hit)
            return
        self.dimension.close_up()
        marks: list[tuple[tuple[str, str, int], list[Segment]]] = [
            ((("feature", "", s.feature)), [Line(a, b) for a, b in pairwise(s.points)]) for s in self._symbols(scene)
        ]
        marks += [
            (("feature", "", index), [Line(a, b) for a, b in pairwise(points)])
            for index, void in scene.shape.voids
            for points in [scene.shape.edge_of(void)]
        ]
        chains = [("outside", scene.profile), ("inside", scene.shape.bore)]
        marks += [
            (("element", side, element), [segment])
            for side, chain in chains
            if chain is not None
            for element, segment in zip(chain.elements, chain.segments, strict=True)
        ]
        found = self._nearest(view, at, [mark for mark in marks if mark[1]])
        if found is None or job is None:
            session.select()
        elif found[0] == "feature":
            session.select(feature=found[2])
        else:
            count = len(job.part.outside if found[1] == "outside" else job.part.inside)
            session.select(element=found[2] if found[2] < count else None, side=found[1])

    @staticmethod
    def _nearest(view: View, at: QPointF, lines: "list[tuple[tuple, list[Segment]]]") -> "tuple | None":  # type: ignore[type-arg]
        """The tag of the line closest to a screen point, if it is close."""
        z, r = view.place(at)
        here = np.array([z, abs(r)])
        best, tag = math.inf, None
        for mark, segments in lines:
            points = np.vstack([segment.points(0.05) for segment in segments])
            a, along = points[:-1], np.diff(points, axis=0)
            share = np.clip(((here - a) * along).sum(axis=1) / np.maximum((along**2).sum(axis=1), 1e-12), 0, 1)
            away = float(np.hypot(*(a + share[:, None] * along - here).T).min())
            if away < best:
                best, tag = away, mark
        return tag if best * view.scale <= PICK_PX else None
