"""What a stage is for the window: its place in the header, its widgets, and what the section shows."""

from dataclasses import dataclass
from typing import Any, ClassVar, Protocol

from PySide6.QtCore import QObject, Signal
from PySide6.QtWidgets import QWidget

from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.picture.look import Look
from toreuma.app.picture.section import SectionCanvas
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.time.player import Player
from toreuma.app.time.ribbon import Ribbon

__all__ = ["Shared", "Stage", "Themed"]


class Themed(Protocol):
    """A widget that is drawn in the colours of a theme."""

    def set_theme(self, theme: Theme) -> None: ...


@dataclass(frozen=True)
class Shared:
    """What stages have in common: the session, and the section and the ribbon below it."""

    session: Session
    theme: Theme
    canvas: SectionCanvas
    ribbon: Ribbon


class Stage(QObject):
    """Derive one class per stage, in a folder of its own, and add it to `toreuma.app.stages.all`; ``shortcut`` is the
    key that shows it.

    ``left``, ``right``, ``middle`` and ``below`` tell what stands there now; ``turned`` says that this has changed.
    """

    key: ClassVar[str]
    label: ClassVar[str]
    shortcut: ClassVar[str]
    panel: Any = None
    numbers: ReasonsPanel | None = None
    turned = Signal()

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared.session)
        self.shared, self.session = shared, shared.session
        self.look = Look()

    # What stands where

    @property
    def left(self) -> QWidget | None:
        """The panel; None leaves its room to the middle."""
        return self.panel  # type: ignore[no-any-return]

    @property
    def right(self) -> QWidget | None:
        """The reasons, or what takes their place."""
        return self.numbers

    @property
    def middle(self) -> QWidget:
        return self.shared.canvas

    @property
    def bar(self) -> QWidget | None:
        """A strip above the middle."""
        return None

    @property
    def below(self) -> QWidget | None:
        return self.shared.ribbon

    @property
    def page(self) -> QWidget | None:
        """A page that takes the whole window below the header."""
        return None

    @property
    def themed(self) -> tuple[Themed, ...]:
        """Every widget of its own that is drawn in the colours of a theme."""
        return tuple(one for one in (self.panel, self.numbers) if one is not None)

    # What it does

    @property
    def is_ready(self) -> bool:
        """Whether it has something to show; until then the first page stands there."""
        return self.session.job is not None

    @property
    def reasons(self) -> ReasonsPanel | None:
        """The reasons on its right, if they stand there."""
        return self.right if isinstance(self.right, ReasonsPanel) else None

    @property
    def player(self) -> Player:
        """What plays when the person asks for it."""
        return self.shared.ribbon.player

    def fit(self) -> None:
        """Fit the picture in the middle."""
        self.shared.canvas.fit()

    def enter(self) -> None:
        """It is shown from now on."""

    def leave(self) -> None:
        """Another stage is shown from now on."""

    def close(self) -> None:
        """The window closes."""
