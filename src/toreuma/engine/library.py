"""Everything that is looked up: what ships, with the person's own values in their place, read once."""

from functools import cache, cached_property
from pathlib import Path

from toreuma.core.advise.from_rack import with_rack
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job, Machine, Material
from toreuma.core.model.catalogue import Catalogue, RackItem
from toreuma.files.jobs import load_job
from toreuma.files.own_materials import Own, own_values, set_own, with_own
from toreuma.files.rack import load_rack
from toreuma.shipped import library as shipped
from toreuma.shipped.standards import code_tables

__all__ = ["Library", "keep_value", "library", "open_job", "renew"]


class Library:
    """Materials, machines, tools and dialects. Each is read when it is first asked for, and not again.

    What of the person's own cannot be read is left as it is; ``problems`` says so, and what ships stands in.
    """

    def __init__(self) -> None:
        self.problems: list[ToreumaError] = []

    @cached_property
    def own(self) -> Own:
        """The person's own values of materials."""
        try:
            return own_values()
        except ToreumaError as error:
            self.problems.append(error)
            return {}

    @cached_property
    def materials(self) -> dict[str, Material]:
        """Workpiece materials by name, with the person's own values in place of those that ship."""
        return with_own(shipped.materials(), self.own)

    @cached_property
    def machines(self) -> dict[str, Machine]:
        """Machines by name."""
        return shipped.machines()

    @cached_property
    def catalogue(self) -> Catalogue:
        """The starter catalogue of tools."""
        return shipped.catalogue()

    def rack(self) -> tuple[RackItem, ...]:
        """What lies in the person's drawer now; nothing where that cannot be read."""
        try:
            return load_rack()
        except ToreumaError as error:
            self.problems.append(error)
            return ()

    def store(self, codes: set[str]) -> Catalogue:
        """The catalogue with what is on the rack and only named by its designation."""
        return with_rack(self.catalogue, codes, code_tables())

    def dialect(self, name: str) -> Dialect:
        """A control's way of writing. Raises `ProgramError`."""
        return shipped.dialect(name)


@cache
def library() -> Library:
    """The one library of this process."""
    return Library()


def renew() -> None:
    """Read the person's own values again: they have been changed."""
    library.cache_clear()


def keep_value(material: str, field: str, value: float | None, source: str) -> None:
    """Keep an own value of a material, or with None go back to what ships. Raises `JobError`."""
    set_own(shipped.materials(), material, field, value, source)
    renew()


def open_job(name: str) -> Job:
    """A job by file name, or ``demo:NAME``. Raises `JobError`."""
    if name.startswith(shipped.DEMO_PREFIX):
        return shipped.demo_job(name.removeprefix(shipped.DEMO_PREFIX))
    return load_job(Path(name))
