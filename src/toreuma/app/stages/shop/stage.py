"""The shop, with or without a job."""

from functools import cached_property
from typing import Any

from PySide6.QtWidgets import QWidget

from toreuma.app.stages.shop.page import ShopPage
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.theme import Theme
from toreuma.core.model import Job
from toreuma.core.plan.hold.rests import in_the_middle

__all__ = ["ShopStage"]


class ShopStage(Stage):
    """Its page is made when it is first looked at: a window opens sooner without it."""

    key, label, shortcut = "shop", "Shop", "Ctrl+H"

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self._theme = shared.theme

    @cached_property
    def shop(self) -> ShopPage:
        page = ShopPage(self._theme, self.session)
        page.used.connect(self._use)
        return page

    @property
    def page(self) -> QWidget:
        return self.shop

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self,)

    @property
    def is_ready(self) -> bool:
        return True

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        if "shop" in self.__dict__:
            self.shop.set_theme(theme)

    def renew(self) -> None:
        """The rack or the folder has changed: show it afresh where it is shown."""
        if "shop" in self.__dict__:
            self.shop.refresh()

    def enter(self) -> None:
        self.shop.refresh()
        self.shop.kinds.setFocus()

    def _use(self, kind: str, value: Any) -> None:
        """Put a machine, a hold or a material into the open job."""

        def change(job: Job) -> Job:
            if kind == "machine":
                return job.changed(machine=value)
            if kind == "material":
                return job.changed(stock=job.stock.changed(material=value))
            if kind == "rest":
                return job.with_setup(rest=in_the_middle(job, value))
            now = job.setup.hold
            return job.with_setup(hold=value.changed(stick_out_mm=now.stick_out_mm))

        error = self.session.attempt(change)
        if error is not None:
            self.session.message.emit("error", f"{error.where}: {error.what}; {error.cure}")
        else:
            self.session.message.emit("ok", f"{getattr(value, 'name', kind)} is used in this job.")
