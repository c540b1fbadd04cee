"""Sizes the proof found: every cylinder and thread with its limits, one row each."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHeaderView, QTableWidget, QTableWidgetItem

from toreuma.app.words import tr
from toreuma.core.prove import Proof
from toreuma.core.units import System, show

__all__ = ["SizeTable"]

HEADS = ("surface", "found Ø", "limits", "")
ROW_PX = 22


class SizeTable(QTableWidget):
    """What is not cut yet says so; a size out of its limits is marked with a word, not only with a colour."""

    def __init__(self, proof: Proof, system: System) -> None:
        super().__init__(0, len(HEADS))
        self.setAccessibleName(tr("Sizes of the finished piece"))
        self.setHorizontalHeaderLabels(HEADS)
        self.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.setSelectionMode(QTableWidget.SelectionMode.NoSelection)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

        def size(value: float) -> str:
            return show(value, "mm", system).number

        rows = []
        for one in proof.sizes:
            side = ", bore" if one.side == "inside" else ""
            limits = "–" if one.limits_mm is None else f"{size(one.limits_mm[0])} … {size(one.limits_mm[1])}"
            word = "ok" if one.ok else "out" if one.cut else "not cut"
            rows.append((one.name + side, size(one.found_mm[1]), limits, word))
        for thread in proof.threads:
            found = "–" if thread.pitch_d_mm is None else size(thread.pitch_d_mm)
            limits = f"{size(thread.limits_mm[0])} … {size(thread.limits_mm[1])}"
            rows.append((f"{thread.designation}, pitch Ø", found, limits, "ok" if thread.ok else "out"))
        self.setRowCount(len(rows))
        for row, texts in enumerate(rows):
            for column, text in enumerate(texts):
                item = QTableWidgetItem(text)
                toward = Qt.AlignmentFlag.AlignLeft if column == 0 else Qt.AlignmentFlag.AlignRight
                item.setTextAlignment(toward | Qt.AlignmentFlag.AlignVCenter)
                self.setItem(row, column, item)
        header = self.horizontalHeader()
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for column in range(1, len(HEADS)):
            header.setSectionResizeMode(column, QHeaderView.ResizeMode.ResizeToContents)
        self.setFixedHeight(header.sizeHint().height() + ROW_PX * len(rows) + 14)
