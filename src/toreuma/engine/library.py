"""Everything that is looked up: what ships, with the person's own values in their place, read once."""

from functools import cache, cached_property
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.advise.from_rack import with_rack
from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError, ToreumaError
from toreuma.core.model import BarSize, Centre, Chuck, Hold, HouseRules, Job, Machine, Material, Rest
from toreuma.core.model.catalogue import Catalogue, RackItem
from toreuma.core.standards.material_names import Named, material_named
from toreuma.core.units import System
from toreuma.files.jobs import load_job, validation_line
from toreuma.files.own_machines import MACHINES
from toreuma.files.own_materials import MATERIALS, value_of
from toreuma.files.own_values import Layer, Own, laid_over, own_faults, own_values, set_own
from toreuma.files.rack import load_rack
from toreuma.files.shop import Entry, Shop, load_shop, remove_entry, save_entry
from toreuma.shipped import library as shipped
from toreuma.shipped.standards import bar_sizes_mm, code_tables

__all__ = ["Library", "drop_entry", "keep_entry", "keep_value", "library", "open_job", "renew"]


class Library:
    """Materials, machines, tools and dialects. Each is read when it is first asked for, and not again.

    What of the person's own cannot be read is left as it is; ``problems`` says so, and what ships stands in.
    """

    def __init__(self) -> None:
        self.problems: list[ToreumaError] = []

    @cached_property
    def own(self) -> Own:
        """The person's own values of materials."""
        return self._values(MATERIALS)

    @cached_property
    def own_of_machines(self) -> Own:
        """The person's own values of machines."""
        return self._values(MACHINES)

    def _values(self, layer: Layer) -> Own:
        try:
            self.problems.extend(own_faults(layer))
            return own_values(layer)
        except ToreumaError as error:
            self.problems.append(error)
            return {}

    @cached_property
    def base_materials(self) -> dict[str, Material]:
        """Workpiece materials by name, the shop's own first, as they are without single values of the person's own."""
        return _first(self._own("material"), shipped.materials())

    @cached_property
    def materials(self) -> dict[str, Material]:
        """Workpiece materials by name, with the person's own values over those of the shop and those that ship."""
        return laid_over(MATERIALS, self.base_materials, self.own)

    def material(self, text: str) -> tuple[Material, Named]:
        """A material by any of its names, and how it was found. Raises `StandardError`."""
        found = material_named(text, self.materials, shipped.material_names())
        return self.materials[found.name], found

    def machine(self, text: str) -> Machine:
        """A machine by its name, whatever its case. Raises `JobError`."""
        found = next((one for name, one in self.machines.items() if name.casefold() == text.strip().casefold()), None)
        if found is None:
            known = ", ".join(self.machines)
            raise JobError(f"machine {text}", "there is no such machine", f"choose from {known}, or add it to the shop")
        return found

    @cached_property
    def shop(self) -> Shop:
        """The person's own machines, holds, materials, tools, bars and rules."""
        found = load_shop()
        self.problems.extend(found.problems)
        return found

    def _own(self, kind: str) -> dict[str, Any]:
        return {name: entry.value for name, entry in self.shop.of(kind).items()}

    @cached_property
    def base_machines(self) -> dict[str, Machine]:
        """Machines by name, the shop's own first, as they are without single values of the person's own."""
        return _first(self._own("machine"), shipped.machines())

    @cached_property
    def machines(self) -> dict[str, Machine]:
        """Machines by name, the shop's own first, with what the shop has learned of each."""
        return laid_over(MACHINES, self.base_machines, self.own_of_machines)

    def base(self, kind: str) -> dict[str, Any]:
        """Materials or machines without single values of the person's own."""
        return dict(self.base_materials) if kind == "material" else dict(self.base_machines)

    @cached_property
    def holds(self) -> dict[str, Hold]:
        """Chucks, collets and mandrels by name, the shop's own first, each chuck with every set of its jaws."""
        own: dict[str, Hold] = {}
        for name, hold in self._own("hold").items():
            own[name] = hold
            for jaws in hold.jaw_sets if isinstance(hold, Chuck) else ():
                dressed = hold.with_jaws(jaws)
                own[dressed.name] = dressed
        return _first(own, {one.name: one for one in shipped.holds()})

    @cached_property
    def centres(self) -> dict[str, Centre]:
        """Centres by name, the shop's own first."""
        return _first(self._own("centre"), {one.name: one for one in shipped.centres()})

    @cached_property
    def rests(self) -> dict[str, Rest]:
        """Steady and follow rests by name, the shop's own first."""
        return _first(self._own("rest"), {one.name: one for one in shipped.rests()})

    @cached_property
    def rules(self) -> HouseRules:
        """How the shop begins a job."""
        return next(iter(self._own("rules").values()), HouseRules())

    @cached_property
    def own_bars(self) -> tuple[BarSize, ...]:
        """Bars the shop says it has."""
        return tuple(self._own("bar").values())

    def bars(self, system: System, material: str = "") -> tuple[BarSize, ...]:
        """Bars that can be had of a material, thinnest first: the shop's own and the usual ones."""
        own = [one for one in self.own_bars if one.material in ("", material)]
        usual = [BarSize(size_mm=size) for size in bar_sizes_mm(system)]
        return tuple(sorted((*own, *usual), key=lambda one: one.size_mm))

    @cached_property
    def catalogue(self) -> Catalogue:
        """The starter catalogue of tools with those of the shop."""
        ships = shipped.catalogue()
        tools = {one.id: one for one in self._own("tool").values()}
        inserts = {one.code: one for one in self._own("insert").values()}
        carriers = {one.code: one for one in self._own("holder").values()}
        return ships.changed(
            tools=(*tools.values(), *(one for one in ships.tools if one.id not in tools)),
            inserts=(*inserts.values(), *(one for one in ships.inserts if one.code not in inserts)),
            carriers=(*carriers.values(), *(one for one in ships.carriers if one.code not in carriers)),
        )

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

    @cached_property
    def dialects(self) -> dict[str, Dialect]:
        """Ways of writing by id: those that ship, and the shop's own. One that cannot be is told among the problems."""
        found = {name: shipped.dialect(name) for name in shipped.dialect_names()}
        for name, own in self._own("dialect").items():
            try:
                base = found.get(own.based_on) or shipped.dialect(own.based_on)
                made = own.on(base)
            except ToreumaError as error:
                self.problems.append(error)
                continue
            except ValueError as error:
                what = (
                    str(error).splitlines()[-1][:160] if not isinstance(error, ValidationError) else first_line(error)
                )
                self.problems.append(JobError(f"dialect {name}", what, "mend its file in the shop's folder"))
                continue
            if made.id not in found:
                found[made.id] = made
        return found

    def dialect(self, name: str) -> Dialect:
        """A control's way of writing. Raises `ProgramError`."""
        if name not in self.dialects:
            known = ", ".join(self.dialects)
            raise ProgramError(f"dialect {name}", "there is no such dialect", f"choose from {known}")
        return self.dialects[name]


def first_line(error: ValidationError) -> str:
    """What is wrong, in one line."""
    place, what = validation_line(error)
    return f"{place}: {what}"


def _first(own: dict[str, Any], ships: dict[str, Any]) -> dict[str, Any]:
    """Own entries, then those that ship and have another name."""
    return {**own, **{name: one for name, one in ships.items() if name not in own}}


@cache
def library() -> Library:
    """The one library of this process."""
    return Library()


def renew() -> None:
    """Read the person's own values again: they have been changed."""
    library.cache_clear()


def keep_value(name: str, field: str, value: float | None, source: str, layer: Layer = MATERIALS) -> None:
    """Keep an own value of a material or a machine, or with None go back to what lies below. Raises `JobError`."""
    set_own(layer, library().base(layer.kind), name, field, value, source)
    renew()


def keep_entry(kind: str, name: str, value: Any, source: str = "own") -> None:
    """Put an entry into the shop, in place of the own one of its name. Raises `JobError`."""
    before = library().shop.of(kind).get(name)
    save_entry(Entry(kind, name, value, source.strip() or "own"))
    for layer in (MATERIALS, MACHINES):
        if layer.kind == kind:
            _typed_over(layer, name, before.value if before is not None else None, value)
    renew()


def _typed_over(layer: Layer, name: str, before: Any, now: Any) -> None:
    """What is typed into an entry counts: a single value kept over it before goes. Raises `JobError`."""
    for field in library().own.get(name, {}) if layer is MATERIALS else library().own_of_machines.get(name, {}):
        if before is None or value_of(before, field) != value_of(now, field):
            set_own(layer, {name: now}, name, field, None, "")


def drop_entry(kind: str, name: str) -> None:
    """Take an own entry out of the shop. Raises `JobError`."""
    remove_entry(kind, name)
    renew()


def open_job(name: str) -> Job:
    """A job by file name, or ``demo:NAME``. Raises `JobError`."""
    if name.startswith(shipped.DEMO_PREFIX):
        return shipped.demo_job(name.removeprefix(shipped.DEMO_PREFIX))
    return load_job(Path(name))
