"""The inspection sheet: every size, thread, place and finish of the drawing, with boxes for what is found."""

from toreuma.core.measure import Characteristic
from toreuma.papers.blocks import Block, Cell, Notes, Picture, Sheet, Table
from toreuma.papers.dossier import Dossier
from toreuma.papers.picture.board import scale_words
from toreuma.papers.picture.dimension import Balloon
from toreuma.papers.picture.views import numbered
from toreuma.papers.say import Say

__all__ = ["inspection_sheets"]

ROOM_MM = (186.0, 124.0)
BOXES = 3
"""Parts with a box of their own on the sheet; the log has room for all."""


def inspection_sheets(dossier: Dossier) -> tuple[Sheet, ...]:
    """One sheet for the whole part."""
    say, plan = Say(dossier.system), dossier.sides[0]
    places = [
        Balloon(one.number, one.at[0], -one.at[1] if one.side == "inside" else one.at[1])
        for one in dossier.characteristics
        if one.row not in ("all", "")
    ]
    svg, scale = numbered(dossier.job, plan.scene, dict(dossier.threads), places, ROOM_MM)
    rows = tuple(_row(one, say) for one in dossier.characteristics)
    columns = (
        ("", "right", 4.0),
        ("what", "left", 24.0),
        ("nominal", "right", 9.0),
        ("least", "right", 9.5),
        ("most", "right", 9.5),
        ("measured by; when", "left", 20.0),
        ("part 1", "left", 8.0),
        *(("part …", "left", 8.0) for _ in range(BOXES - 1)),
    )
    unit = say.unit("mm")
    note = (
        f"Sizes in {unit}, diameters on diameter, Ra in {say.unit('um')}, angles in degrees. The means is the simplest "
        "whose uncertainty is a fifth of the tolerance or less. Every line is measured on the first part. Where no "
        "limits stand the drawing gives none."
    )
    blocks: tuple[Block, ...] = (
        Picture(svg, f"Scale {scale_words(scale)}. Numbers: outside above the axis, inside below."),
        Table("", columns, rows, note),
        Notes("", ("Gauge numbers, temperature, date, name: " + "." * 60,)),
    )
    return (Sheet("inspection", "Inspection sheet", f"{len(rows)} lines", blocks),)


def _row(one: Characteristic, say: Say) -> tuple[Cell, ...]:
    places = 3 if one.unit == "mm" else 2
    if one.quantity in ("gauge", "edge"):
        nominal = say.number(one.nominal, "mm", 2) if one.nominal is not None and one.quantity == "edge" else ""
    else:
        nominal = say.of(one.nominal, one.unit).split(" ")[0] if one.nominal is not None else "–"
    low, high = (say.number(value, one.unit, places) if value is not None else "–" for value in (one.lower, one.upper))
    if one.quantity in ("gauge", "edge"):
        low = high = ""
    what = say.text(one.what)
    small = ", ".join(word for word in (one.from_where, one.note) if word)
    return (
        Cell(str(one.number)),
        Cell(what[:1].upper() + what[1:], small=small),
        Cell(nominal),
        Cell(low),
        Cell(high),
        Cell(say.text(one.means), small=one.often),
        *(Cell(box=True) for _ in range(BOXES)),
    )
