"""Left panel of the stock stage: what the part is cut from."""

from typing import Any

from toreuma.app.forms.fields import BAR_FIELDS, SKIN_FIELDS, STOCK_FIELDS, STOCK_SIZES, SUPPLY_FIELDS
from toreuma.app.forms.rows import RowColumn
from toreuma.core.kinds.field import Field
from toreuma.core.model import Job
from toreuma.engine.fresh import restocked
from toreuma.engine.library import library

__all__ = ["StockPanel"]

KINDS = (
    ("Round bar", "round"),
    ("Hexagon bar", "hexagon"),
    ("Square bar", "square"),
    ("Tube, or cored blank", "tube"),
    ("Casting or forging", "free"),
)
SKINS = (("Clean, drawn or peeled", "clean"), ("Scale from rolling", "scale"), ("Hard cast skin", "hard"))


class StockPanel(RowColumn):
    """Kind and sizes of the blank, its material and surface, and how it is bought."""

    def _fill(self) -> None:
        job = self.session.job
        if job is None:
            self.start(())
            return
        stock = job.stock
        kind = stock.kind if stock.kind != "polygon" else ("hexagon" if stock.sides == 6 else "square")
        is_bar = stock.kind != "free" and stock.length_mm is None
        fresh = self.start((kind, is_bar, stock.supply.back_to_back, stock.kind == "free" and bool(stock.outside)))
        if fresh:
            self.heading("Blank")
        self.choice("kind", "Kind", KINDS, kind, restocked)
        own = stock.kind == "free" and bool(stock.outside)
        self.text("own", "muted", "Has a profile of its own, read from a file." if own else "")
        for field in (
            *(() if own else STOCK_SIZES[stock.kind]),
            *(STOCK_FIELDS if stock.kind != "free" else STOCK_FIELDS[:1] if own else ()),
        ):
            self._stock_row(stock, field)
        if fresh:
            self.heading("Material")
        names = tuple((f"{m.name}  ({m.group})", m.name) for m in library().materials.values())
        known = stock.material.name in library().materials
        options = names if known else ((f"{stock.material.name}  (this job's own)", stock.material.name), *names)
        self.choice("material", "Material", options, stock.material.name, _with_material)
        self.text("facts", "muted", _facts(job))
        if fresh:
            self.heading("Surface as delivered")
        self.choice("skin", "Skin", SKINS, stock.skin, lambda j, v: j.changed(stock=j.stock.changed(skin=v)))
        for field in SKIN_FIELDS:
            self._stock_row(stock, field)
        if fresh:
            self.heading("Supply")
        pair = (("Each part on its own", False), ("Two back to back", True))
        if is_bar:
            self.choice("pair", "Blanks", pair, stock.supply.back_to_back, lambda j, v: _with_supply(j, back_to_back=v))
        if fresh and is_bar and stock.supply.back_to_back:
            self.buttons(
                [("Open the program of the second end", lambda: self.session.wanted.emit("second_end"))], columns=1
            )
        for field in (*(BAR_FIELDS if is_bar else ()), *SUPPLY_FIELDS):
            name = field.name
            self.typed(
                f"supply.{name}",
                field,
                getattr(stock.supply, name),
                lambda job, number, n=name: _with_supply(job, **{n: number}),  # type: ignore[misc]
            )
        if fresh:
            self.end()

    def _stock_row(self, stock: Any, field: Field) -> None:
        name = field.name
        self.typed(
            f"stock.{name}",
            field,
            getattr(stock, name),
            lambda job, number, n=name: job.changed(stock=job.stock.changed(**{n: number})),  # type: ignore[misc]
        )


def _with_material(job: Job, name: str) -> Job:
    material = library().materials.get(name, job.stock.material)
    return job.changed(stock=job.stock.changed(material=material))


def _with_supply(job: Job, **changes: Any) -> Job:
    return job.changed(stock=job.stock.changed(supply=job.stock.supply.changed(**changes)))


def _facts(job: Job) -> str:
    material = job.stock.material
    hardness = f", about {material.hardness_hb:.0f} HB" if material.hardness_hb else ""
    source = material.source[:1].upper() + material.source[1:]
    return f"ISO 513 group {material.group}, {material.density_kg_m3:.0f} kg/m³{hardness}. {source}"
