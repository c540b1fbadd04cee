"""The store a person really has: the catalogue, and what lies on the rack and can be read from its code."""

from collections.abc import Iterable

from toreuma.core.errors import StandardError
from toreuma.core.geometry.from_code import insert_from, tool_from
from toreuma.core.model import Insert
from toreuma.core.model.catalogue import Catalogue, InsertCarrier, Seat
from toreuma.core.model.tool import BoringTool
from toreuma.core.standards.codes import CodeTables, InsertCode, decode

__all__ = ["with_rack"]

FEED_SHARES, DEPTH_FROM_NOSE, DEPTH_OF_EDGE = (0.2, 0.5), 0.5, 0.3
"""A usual chip window where the code is all that is known: feed as shares of the nose radius, depth from a share of
the nose radius to one of the edge. Typical for a general chip former."""


def with_rack(store: Catalogue, codes: Iterable[str], tables: CodeTables) -> Catalogue:
    """The catalogue with those inserts, holders and bars of ``codes`` that it lacks, as far as they can be read."""
    known = {one.code for one in store.inserts} | {one.code for one in store.carriers}
    inserts, carriers = list(store.inserts), list(store.carriers)
    for text in codes:
        if text in known:
            continue
        try:
            code = decode(text, tables)
            if isinstance(code, InsertCode):
                inserts.append(_with_window(insert_from(code, tables), text))
                continue
            tool = tool_from(code, tables)
        except StandardError:
            continue
        clearance = tables.insert.clearance_deg.get(code.clearance, 0.0)
        seat = Seat(shape=code.shape, ic_mm=tool.insert.ic_mm, clearance_deg=clearance)
        bar = tool.bar.changed(code=text) if isinstance(tool, BoringTool) else None
        holder = None if isinstance(tool, BoringTool) else tool.holder.changed(code=text)
        carriers.append(
            InsertCarrier(code=text, hand=tool.hand, seat=seat, bar=bar, holder=holder, clamping=code.clamping)
        )
    return store.changed(inserts=tuple(inserts), carriers=tuple(carriers))


def _with_window(insert: Insert, code: str) -> Insert:
    nose = insert.ic_mm / 8 if insert.shape == "R" else max(insert.nose_radius_mm, 0.1)
    edge = insert.edge_length_mm or insert.ic_mm
    f0, f1 = (round(share * nose, 3) for share in FEED_SHARES)
    a0, a1 = round(DEPTH_FROM_NOSE * nose, 2), round(max(DEPTH_OF_EDGE * edge, nose), 1)
    return insert.changed(code=code, chip_former="by its code", chip_window=((f0, a0), (f1, a0), (f1, a1), (f0, a1)))
