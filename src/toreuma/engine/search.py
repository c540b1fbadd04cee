"""Search through catalogue and rack by code, by property, or by words."""

import re
from collections.abc import Iterable
from dataclasses import dataclass

from toreuma.core.errors import StandardError
from toreuma.core.model.catalogue import Catalogue, InsertCarrier, RackItem, WholeTool
from toreuma.core.model.tool import (
    BarPuller,
    BarStop,
    ChamferMill,
    Drill,
    EndMill,
    FormTool,
    GroovingTool,
    Insert,
    KnurlingTool,
    PartingTool,
    PullTool,
    Reamer,
    Tap,
    ThreadingTool,
    ThreadMill,
    Tool,
)
from toreuma.core.standards.codes import decode
from toreuma.shipped.standards import code_tables

__all__ = ["Entry", "edges_of", "found_in", "is_known", "thing_of"]


@dataclass(frozen=True)
class Entry:
    """One thing of the store: its code, what it is in words, and whether it lies on the rack."""

    code: str
    words: str
    on_rack: bool


def found_in(store: Catalogue, rack: Iterable[RackItem], text: str) -> list[Entry]:
    """Everything every word of ``text`` is found in, the rack first. The word ``rack`` keeps only what lies there."""
    held = {item.code: item for item in rack}
    entries = [Entry(code, _held(words, held.get(code)), code in held) for code, words in _everything(store)]
    known = {entry.code for entry in entries}
    entries += [
        Entry(item.code, _held("not in the catalogue", item), True) for item in held.values() if item.code not in known
    ]
    wanted = [_plain(word) for word in re.sub(r"(Ø|R)\s+", r"\1", text).split()]
    found = [e for e in entries if all(word in _plain(f"{e.code} {e.words}") for word in wanted)]
    return sorted(found, key=lambda entry: not entry.on_rack)


def edges_of(store: Catalogue, code: str) -> int:
    """Edges a new one has; 1 for what is no insert."""
    return next((insert.edges for insert in store.inserts if insert.code == code), 1)


def is_known(store: Catalogue, code: str) -> bool:
    """The catalogue has it, or it is a designation that can be read."""
    if thing_of(store, code) is not None:
        return True
    try:
        decode(code, code_tables())
    except StandardError:
        return False
    return True


def thing_of(store: Catalogue, code: str) -> Insert | Tool | None:
    """What a code of the catalogue stands for; a carrier with the first insert that fits it."""
    for insert in store.inserts:
        if insert.code == code:
            return insert
    for carrier in store.carriers:
        if carrier.code == code:
            insert = next(one for one in store.inserts if carrier.seat.takes(one))
            return carrier.with_insert(insert, "T0")
    return next((tool for tool in store.tools if (tool.name or tool.id) == code), None)


def _plain(text: str) -> str:
    return text.lower().replace(" ", "").replace(",", ".")


def _held(words: str, item: RackItem | None) -> str:
    if item is None:
        return words
    place = f", {item.place}" if item.place else ""
    return f"{words}  ·  on my rack{place}, {item.edges_left} edges left"


def _everything(store: Catalogue) -> Iterable[tuple[str, str]]:
    yield from ((insert.code, _insert(insert)) for insert in store.inserts)
    yield from ((carrier.code, _carrier(carrier)) for carrier in store.carriers)
    yield from ((tool.name or tool.id, _whole(tool)) for tool in store.tools)


def _insert(insert: Insert) -> str:
    nose = f"R{insert.nose_radius_mm:g} mm, " if insert.shape != "R" else ""
    angle = "round" if insert.shape == "R" else f"{insert.included_angle_deg:g}°"
    return f"insert {angle}, IC {insert.ic_mm:g} mm, {nose}{insert.edges} edges, {insert.material} {insert.grade}"


def _carrier(carrier: InsertCarrier) -> str:
    takes = f"takes {carrier.seat.shape} {carrier.seat.ic_mm:g} mm"
    if carrier.bar is not None:
        bar = carrier.bar
        bore = f"bore from {bar.least_bore_mm:g} mm"
        damped = ", damped" if bar.damped else ""
        return f"bar Ø{bar.diameter_mm:g} mm {bar.material}{damped}, {bore}, {takes}, {carrier.hand} hand"
    assert carrier.holder is not None
    holder = carrier.holder
    return f"holder {holder.entering_angle_deg:g}°, shank {holder.shank_width_mm:g} mm, {takes}, {carrier.hand} hand"


def _whole(tool: WholeTool) -> str:
    if isinstance(tool, Drill):
        size = f"Ø{tool.d_mm:g} mm, {tool.flute_length_mm:g} mm deep"
        return f"{tool.form} drill {size}, point {tool.point_deg:g}°, {tool.material}"
    if isinstance(tool, Tap):
        return f"tap {tool.thread}, {tool.form}, lead {tool.lead_pitches:g} pitches"
    if isinstance(tool, Reamer):
        return f"reamer Ø{tool.d_mm:g} mm {tool.fit}"
    if isinstance(tool, ThreadingTool):
        low, high = tool.insert.pitch_mm
        pitch = f"{low:g} mm" if low == high else f"{low:g} to {high:g} mm"
        bore = f", bore from {tool.bar.least_bore_mm:g} mm" if tool.bar is not None else ""
        return f"threading {tool.where}, {tool.insert.profile_deg:g}°, pitch {pitch}{bore}"
    if isinstance(tool, GroovingTool):
        tip = ", full radius" if tool.round_tip else "" if tool.tip_deg == 180 else f", V {tool.tip_deg:g}°"
        return f"grooving {tool.where}, {tool.blade.width_mm:g} mm wide, {tool.blade.depth_mm:g} mm deep{tip}"
    if isinstance(tool, PullTool):
        return f"pull turning at {tool.pull_deg:g}°, {tool.blade.width_mm:g} mm wide, {tool.blade.depth_mm:g} mm deep"
    if isinstance(tool, FormTool):
        return f"form tool, {len(tool.outline_mm)} corners, {tool.material}"
    if isinstance(tool, KnurlingTool):
        return f"knurling wheels {tool.form} {tool.pitch_mm:g} mm, {tool.wheel_width_mm:g} mm wide"
    if isinstance(tool, BarPuller):
        return f"bar gripper, Ø {tool.grips_mm[0]:g} to {tool.grips_mm[1]:g} mm"
    if isinstance(tool, BarStop):
        return f"bar stop, Ø {tool.d_mm:g} mm"
    if isinstance(tool, ChamferMill):
        return f"chamfer mill Ø{tool.tip_d_mm:g} to {tool.d_mm:g} mm, {tool.point_deg:g}°, {tool.teeth} teeth"
    if isinstance(tool, ThreadMill):
        low, high = tool.pitch_mm
        pitch = f"{low:g} mm" if low == high else f"{low:g} to {high:g} mm"
        return f"thread mill Ø{tool.d_mm:g} mm, {tool.profile_deg:g}°, pitch {pitch}, {tool.flute_length_mm:g} mm deep"
    if isinstance(tool, EndMill):
        return f"end mill Ø{tool.d_mm:g} mm, {tool.teeth} teeth, flutes {tool.flute_length_mm:g} mm, {tool.material}"
    assert isinstance(tool, PartingTool)
    return f"parting blade {tool.blade.width_mm:g} mm wide, {tool.blade.depth_mm:g} mm deep"
