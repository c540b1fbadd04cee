"""Which tool of which hold made a size, and what the computed bend of the piece does to it."""

import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from toreuma.core.cutting.beam import Compliance, compliance_of
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.kinds.tools import TOOLS
from toreuma.core.measure import Characteristic
from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.hold.standing import held_piece
from toreuma.core.verdict import Verdict
from toreuma.core.verdict.row import Made

__all__ = ["Cutter", "Cutters"]

OFFSET_KINDS = frozenset(("turning", "boring", "grooving", "parting", "threading", "pull", "form"))
"""Tools whose sizes an offset moves; the others make the size they are ground to."""


@dataclass(frozen=True, kw_only=True)
class Cutter:
    """``hold`` counts the sides from 0; ``planned`` is the operation that cut it last."""

    hold: int
    tool: str
    planned: OperationPlan


class Cutters:
    """Looks sizes up in planned sides and the verdict over them."""

    def __init__(self, sides: Sequence[Plan], verdict: Verdict) -> None:
        self._sides = tuple(sides)
        self._made: Mapping[str, Made] = {row.key: row.made for row in verdict.rows if row.made is not None}
        self._soft: dict[tuple[int, str], Compliance | None] = {}

    def of(self, one: Characteristic) -> Cutter | None:
        """Who cut it; None where nobody did, or a tool that no offset moves."""
        return self._cutter(self._made.get(one.row))

    @property
    def of_front(self) -> Cutter | None:
        """Who cut the front face, from which lengths are counted."""
        return self._cutter(self._made.get("outside 0"))

    def of_back(self) -> Cutter | None:
        """Who cut the back face."""
        last = max(
            (int(key.split()[1]) for key in self._made if key.startswith("outside ") and key.count(" ") == 1),
            default=-1,
        )
        return self._cutter(self._made.get(f"outside {last}"))

    def _cutter(self, made: Made | None) -> Cutter | None:
        if made is None or made.side >= len(self._sides):
            return None
        plan = self._sides[made.side]
        for planned in reversed(plan.operations):
            operation = planned.operation
            if planned.motions and _plain(operation.name or OPERATIONS[operation.kind].label) == _plain(made.operation):
                tool = plan.job.tool(operation.tool)
                if tool is None or tool.kind not in OFFSET_KINDS:
                    return None
                return Cutter(hold=made.side, tool=tool.id, planned=planned)
        return None

    def names(self) -> dict[str, str]:
        """Tools in words: what they are called, with their station."""
        found = {}
        for plan in self._sides:
            for tool in plan.job.tools:
                words = f"T{tool.station} {tool.name or TOOLS[tool.kind].label}"
                found[tool.id] = words
                found[second(tool.id)] = f"{words} in the second hold"
        return found

    def place(self, cutter: Cutter, z: float) -> float:
        """A place of the drawing as the hold of a cutter counts it, in front of its jaws."""
        scene = self._sides[cutter.hold].scene
        here = z if cutter.hold == 0 else scene.profile.back_z - z
        return here - scene.jaw_face_z

    def bend_mm(self, cutter: Cutter, z: float) -> float:
        """What the piece gives way under the finishing cut, on diameter; 0 where that is not known."""
        scene, force = self._sides[cutter.hold].scene, cutter.planned.figures.passive_force_n
        soft = self._compliance(cutter)
        if soft is None or not force:
            return 0.0
        here = z if cutter.hold == 0 else scene.profile.back_z - z
        return 2 * force * soft.at(here)

    def _compliance(self, cutter: Cutter) -> Compliance | None:
        key = (cutter.hold, cutter.planned.operation.id)
        if key not in self._soft:
            plan = self._sides[cutter.hold]
            e = plan.job.stock.material.e_n_mm2
            piece = held_piece(cutter.planned.after, plan.scene.jaw_face_z)
            known = (
                e is not None and not piece.is_empty and piece.bounds[0] < plan.scene.jaw_face_z + 1 < piece.bounds[2]
            )
            self._soft[key] = compliance_of(piece, plan.scene.supports_followed, e) if known and e is not None else None
        return self._soft[key]


def second(tool: str) -> str:
    """A tool's length in the second hold, which has a datum of its own."""
    return f"{tool} side 2"


def _plain(words: str) -> str:
    """A name as it comes out of a program's comment."""
    text = unicodedata.normalize("NFKD", words).encode("ascii", "ignore").decode()
    return "".join(c for c in text.casefold() if c.isalnum())
