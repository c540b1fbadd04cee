"""Numbers and tools in the words of a sheet, in the person's units."""

import math

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.kinds.tools import TOOLS
from toreuma.core.model import Tool
from toreuma.core.model.tool import BoringTool, GroovingTool, PartingTool, ThreadingTool, TurningTool
from toreuma.core.spoken import spoken
from toreuma.core.units import System, show

__all__ = ["Say", "clock"]

NOT_KNOWN = "–"
HANDED = frozenset(("turning", "boring", "parting", "grooving", "pull", "threading"))


def clock(seconds: float) -> str:
    """Hours, minutes and seconds: 1:05 or 2:05:10."""
    if not math.isfinite(seconds):
        return NOT_KNOWN
    whole = round(seconds)
    hours, rest = divmod(whole, 3600)
    return f"{hours}:{rest // 60:02}:{rest % 60:02}" if hours else f"{rest // 60}:{rest % 60:02}"


class Say:
    """Writes for one system of units."""

    def __init__(self, system: System) -> None:
        self.system: System = system

    def mm(self, value: float | None, decimals: int | None = None, unit: bool = True) -> str:
        """A length; trimmed where no decimals are asked for."""
        if value is None:
            return NOT_KNOWN
        shown = show(value, "mm", self.system, decimals, trim=decimals is None)
        return str(shown) if unit else shown.number

    def d(self, value: float | None, decimals: int | None = None) -> str:
        """A diameter with its sign."""
        return NOT_KNOWN if value is None else f"Ø {self.mm(value, decimals)}"

    def of(self, value: float | None, unit: str, decimals: int | None = None) -> str:
        """A quantity of any internal unit."""
        return NOT_KNOWN if value is None else str(show(value, unit, self.system, decimals, trim=decimals is None))

    def number(self, value: float | None, unit: str, decimals: int | None = None) -> str:
        """The same without its unit, which stands in the heading."""
        return NOT_KNOWN if value is None else show(value, unit, self.system, decimals).number

    def evidence(self, one: Evidence) -> str:
        """A number with its unit, and what it is measured on."""
        words = self.of(one.number, one.unit)
        return f"{words} {one.measured_on}".strip()

    def unit(self, unit: str) -> str:
        """The label of an internal unit."""
        return show(0.0, unit, self.system).unit

    @property
    def lengths(self) -> str:
        """What lengths are in, in a word."""
        return "inches" if self.system == "inch" else "mm"

    def text(self, words: str) -> str:
        """A sentence with its quantities in the person's units."""
        return spoken(words, self.system)

    # Tools

    def tool(self, tool: Tool) -> str:
        """What it is called."""
        return tool.name or TOOLS[tool.kind].label

    def hand(self, tool: Tool) -> str:
        """Which hand it is, where that is worth saying: of what has one, the left."""
        return "left" if tool.hand == "left" and tool.kind in HANDED else ""

    def cutting(self, tool: Tool) -> str:
        """The insert, or the cutting part, by its code; by its sizes where it has none."""
        if isinstance(tool, TurningTool | BoringTool):
            insert = tool.insert
            angle = "round" if insert.shape == "R" else f"{insert.shape} {insert.included_angle_deg:g}°"
            sizes = f"{angle}, IC {self.mm(insert.ic_mm)}, RE {self.mm(insert.nose_radius_mm)}"
            return self._named(insert.code, sizes, insert.material, insert.grade)
        if isinstance(tool, PartingTool | GroovingTool):
            blade = tool.blade
            sizes = f"blade {self.mm(blade.width_mm)}, RE {self.mm(blade.corner_radius_mm)}"
            return self._named(blade.code, sizes, blade.material, blade.grade)
        if isinstance(tool, ThreadingTool):
            low, high = tool.insert.pitch_mm
            pitch = self.mm(low) if low == high else f"{self.mm(low, unit=False)} to {self.mm(high)}"
            kind = "full profile" if tool.insert.full_profile else "partial profile"
            sizes = f"{tool.insert.profile_deg:g}° {kind}, pitch {pitch}"
            return self._named(tool.insert.code, sizes, tool.insert.material, tool.insert.grade)
        return self._named(getattr(tool, "code", ""), self._size(tool), getattr(tool, "material", ""), "")

    def carrier(self, tool: Tool) -> str:
        """Holder, bar or block by its code; by its sizes where it has none."""
        holder, bar = getattr(tool, "holder", None), getattr(tool, "bar", None)
        if bar is not None:
            sizes = f"bar {self.d(bar.diameter_mm)}, {bar.material}"
            out = bar.stick_out_mm
            return self._named(bar.code, sizes + (f", out {self.mm(out)}" if out else ""), "", "")
        if holder is not None:
            high = holder.shank_height_mm or holder.shank_width_mm
            return self._named(
                holder.code, f"shank {self.mm(high, unit=False)} × {self.mm(holder.shank_width_mm)}", "", ""
            )
        blade = getattr(tool, "blade", None)
        if blade is not None:
            return f"block {self.mm(blade.block_width_mm)}, reaches {self.mm(blade.depth_mm)}"
        shank = getattr(tool, "shank_d_mm", None)
        return f"shank {self.d(shank)}" if shank else ""

    def codes(self, tool: Tool) -> tuple[str, ...]:
        """Codes by which its pieces lie on the rack."""
        parts = [getattr(tool, name, None) for name in ("insert", "blade", "holder", "bar")]
        found = [getattr(part, "code", "") for part in parts if part is not None]
        return tuple(one for one in (*found, getattr(tool, "code", "")) if one)

    def nose_mm(self, tool: Tool) -> float | None:
        """Radius of its nose or corners."""
        for name, field in (("insert", "nose_radius_mm"), ("blade", "corner_radius_mm"), ("insert", "tip_radius_mm")):
            part = getattr(tool, name, None)
            value = getattr(part, field, None)
            if value is not None:
                return float(value)
        return None

    def _size(self, tool: Tool) -> str:
        d = getattr(tool, "d_mm", None)
        name = getattr(tool, "thread", "") or TOOLS[tool.kind].label
        return f"{name} {self.d(d)}" if d else name

    @staticmethod
    def _named(code: str, sizes: str, material: str, grade: str) -> str:
        more = ", ".join(one for one in (sizes if not code else "", material, grade) if one)
        return f"{code}, {more}" if code and more else code or more
