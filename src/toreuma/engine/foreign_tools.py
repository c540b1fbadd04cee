"""Tools for a program that nobody planned: from what a person says, from comments, and for the rest assumed."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from toreuma.core.errors import ProgramError, StandardError, ToreumaError
from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.from_code import insert_from, tool_from
from toreuma.core.model import Tool
from toreuma.core.model.tool import (
    Bar,
    BarPuller,
    BarStop,
    Blade,
    BoringTool,
    ChamferMill,
    Drill,
    EndMill,
    GroovingTool,
    Holder,
    Insert,
    PartingTool,
    Reamer,
    Tap,
    ThreadingTool,
    ThreadInsert,
    ThreadMill,
    TurningTool,
)
from toreuma.core.read import Nose
from toreuma.core.read.nose import tip_from_centre
from toreuma.core.read.overview import ToolUse
from toreuma.core.standards.codes import InsertCode, decode
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.library import catalogue
from toreuma.shipped.standards import code_tables, thread_tables

__all__ = ["Filled", "filled"]

INCH = 25.4
SAID_KEYS = {
    "d_mm": ("d_mm", "diameter_mm", "diameter", "dia", "d"),
    "width_mm": ("width_mm", "width", "w"),
    "nose_mm": ("nose_mm", "nose_radius_mm", "nose", "nose_radius", "radius", "r"),
    "code": ("code", "insert", "insert_code"),
    "holder": ("holder", "holder_code", "bar"),
    "kind": ("kind", "type"),
    "name": ("name", "comment", "description"),
    "hand": ("hand",),
    "thread": ("thread",),
    "tip": ("tip", "tip_number", "quadrant", "orientation", "tip_direction"),
    "length_mm": ("length_mm", "length", "reach_mm", "reach"),
    "depth_mm": ("depth_mm", "depth", "cut_depth_mm"),
    "point_deg": ("point_deg", "point_angle", "point"),
}


ROOT_OUTSIDE, ROOT_INSIDE = 0.1443, 0.0722
"""Radius of a tip that fits, as a share of the pitch: H/6 outside (root of ISO 68-1), half that in a bore."""

USUAL_DEPTH = 4.0
"""Blades for grooves outside stand out so many widths: typical, between 3 and 6."""


GRIPPED_MM = (2.0, 80.0)
"""A gripper nobody described takes every usual bar."""


@dataclass(frozen=True, kw_only=True)
class Filled:
    """A tool, and what of it nobody said. ``shift`` leads from the point that the program moves to the one the tool is
    described from, mm (z, r)."""

    tool: Tool
    assumed: tuple[str, ...]
    nose_mm: float
    shift: Point = (0.0, 0.0)
    body_said: bool = False
    """Somebody said what carries it; else its holder is one that is usual."""


def filled(use: ToolUse, row: Mapping[str, Any] | None, where: str, inch: bool = False) -> Filled:
    """A tool of one station as it is said, else as its comments and cuts show; ``inch``: the program counts in inches,
    and so does who says a number without a unit. Raises `ProgramError`."""
    said = _said(row or {}, inch)
    hints = _Hints(use, said, inch)
    try:
        return hints.tool()
    except ToreumaError:
        raise
    except ValueError as error:
        lines = [one.strip() for one in str(error).splitlines() if "further information" not in one]
        first = lines[-1][:120]
        raise ProgramError(
            f"{where}, station {use.station}", f"no such tool can be ({first})", "check its sizes"
        ) from None


def _said(row: Mapping[str, Any], inch: bool) -> dict[str, Any]:
    lower = {str(key).lower(): value for key, value in row.items() if value is not None}
    found = {}
    for name, keys in SAID_KEYS.items():
        key = next((key for key in keys if key in lower), None)
        if key is None:
            continue
        value = lower[key]
        if name.endswith("_mm") and not key.endswith("_mm") and inch and re.fullmatch(r"[\d.]+", str(value).strip()):
            value = INCH * float(value)
        found[name] = value
    return found


_KIND_WORDS: tuple[tuple[str, str], ...] = (
    (r"\b(BAR|STOCK)[ -]?(PULLER|PULL|GRIPPER)\b|\b(PULLER|GRIPPER)\b", "bar_puller"),
    (r"\b(BAR|STOCK|WORK)[ -]?STOP(PER)?\b", "bar_stop"),
    (r"\bTHR(EA)?D[ -]?MILL", "thread_mill"),
    (r"\bCHAMFER(ING)?[ -]?(MILL|CUTTER)\b", "chamfer_mill"),
    (r"\bTAP(PING)?\b", "tap"),
    (r"\bREAM(ER)?\b", "reamer"),
    (r"\b(CENT(ER|RE)([ -]?DRILL)?|SPOT(TER|TING)?|C/?DRILL)\b", "centre"),
    (r"\b(U-?)?DRILL(ING)?\b|\bDR\b", "drill"),
    (r"\b(PART(ING)?( ?OFF)?|CUT-? ?OFF|PARTOFF)\b", "parting"),
    (r"\bFACE[ -]?GROOV", "face grooving"),
    (r"\bGROOV(E|ING|ER)\b|\bRECESS\b", "grooving"),
    (r"\bTHR(EA)?D(ING|ER)?\b|\b60 ?DEG\b|\bSCREW", "threading"),
    (r"\bBOR(E|ING)\b|\bI\.?D\.?\b|\bB/?BAR\b", "boring"),
    (r"\b(END ?)?MILL\b", "end_mill"),
    (r"\bFAC(E|ING)\b|\bTURN(ING)?\b|\bROUGH(ING)?\b|\bFINISH(ING)?\b|\bO\.?D\.?\b", "turning"),
)
_SIZE = r"(\d+/\d+|\d*\.\d+|\d+\.?)"
_DRILLS = r"(?:U-?DRILL|C/?DRILL|DRILL|SPOT(?:TER|TING)?|CENT(?:ER|RE)|REAM(?:ER)?|(?:END ?)?MILL|BAR)"
_D_WORDS = re.compile(
    rf"(?:DIA\.?|Ø|\bD)\s*{_SIZE}|{_SIZE}\s*(?:MM)?\s*(?:DIA\b|{_DRILLS})|{_DRILLS}\s*(?:DIA\.?|Ø|D)?\s*{_SIZE}", re.I
)
_GAUGE_WORDS = re.compile(r"(?:#|\bNO\.? ?)(\d{1,2})\b(?![\d.-])|\bLETTER ([A-Z])\b", re.I)
_CUTS = r"(?:GROOV\w*|PART\w*(?: ?OFF)?|CUT-? ?OFF|WIDTH|\bW)"
_W_WORDS = re.compile(rf"{_SIZE}\s*(?:MM)?\s*(?:WIDE|WIDTH|GROOV|PART|CUT)|{_CUTS}\s*{_SIZE}", re.I)
_THREAD_WORDS = re.compile(r"\b(M\d+(?:\.\d+)?(?:\s*X\s*\d+(?:\.\d+)?)?|\d+/\d+-\d+|G\s?\d/\d)\b", re.I)
_NOSE_WORDS = re.compile(rf"\bR\s*{_SIZE}|{_SIZE}\s*(?:RAD|NOSE)|(?:NOSE|RAD(?:IUS)?)\s*{_SIZE}", re.I)


class _Hints:
    """Everything that speaks for one tool being what it is."""

    def __init__(self, use: ToolUse, said: dict[str, Any], inch: bool) -> None:
        self.use, self.said, self.inch = use, said, inch
        self.text = " ".join((*use.comments, str(said.get("name", "")), str(said.get("code", "")))).upper()
        self.assumed: list[str] = []
        self.insert = self._insert()

    def tool(self) -> Filled:
        kind = self._kind()
        tool = self._makers[kind](kind)
        own = getattr(getattr(tool, "insert", None), "nose_radius_mm", 0.0)
        blade = getattr(tool, "blade", None)
        nose = blade.corner_radius_mm if blade else float(own or 0.0)
        shift = self._shift(tool, nose)
        body = bool({"holder", "depth_mm", "length_mm"} & self.said.keys())
        return Filled(tool=tool, assumed=tuple(self.assumed), nose_mm=nose, shift=shift, body_said=body)

    @property
    def _makers(self) -> dict[str, Callable[[str], Tool]]:
        """What makes a tool of each kind."""
        return {
            "tap": self._tap,
            "reamer": self._reamer,
            "drill": self._drill,
            "centre": self._drill,
            "parting": self._parting,
            "grooving": self._grooving,
            "face grooving": self._grooving,
            "threading": self._threading,
            "boring": self._boring,
            "end_mill": self._mill,
            "chamfer_mill": self._chamfer_mill,
            "thread_mill": self._thread_mill,
            "turning": self._turning,
            "bar_stop": self._bar_stop,
            "bar_puller": self._bar_puller,
        }

    def _shift(self, tool: Tool, nose: float) -> Point:
        """Programs move the corner toward the chuck of a blade, and the tip of an insert, unless a tip is said."""
        tip = self.said.get("tip")
        number = None if tip is None else int(float(str(tip)))
        if isinstance(tool, GroovingTool) and tool.where != "face":
            if number in (4, 1):
                return 0.0, 0.0
            if number is None:
                self.assumed.append("that its corner toward the chuck is programmed")
            return tool.blade.width_mm, 0.0
        if number is not None and isinstance(tool, TurningTool | BoringTool):
            own, said = (tip_from_centre(Nose(nose, one)) for one in (2 if isinstance(tool, BoringTool) else 3, number))
            return own[0] - said[0], own[1] - said[1]
        return 0.0, 0.0

    def _head(self) -> dict[str, Any]:
        name = str(self.said.get("name") or next(iter(self.use.comments), "") or f"station {self.use.station}")
        hand = "left" if str(self.said.get("hand", "")).lower().startswith("l") else "right"
        return {"id": f"T{self.use.station}", "name": name[:120], "station": self.use.station, "hand": hand}

    def _kind(self) -> str:
        said = str(self.said.get("kind", "")).lower()
        named = {"drilling": "drill", "tapping": "tap", "groove": "grooving", "thread": "threading", "bore": "boring",
                 "part_off": "parting", "cut-off": "parting", "mill": "end_mill", "facing": "turning",
                 "turn": "turning"}.get(said, said)  # fmt: skip
        if named in self._makers:
            return named
        if self.insert is not None:
            return "boring" if self.use.inside else "turning"
        for pattern, kind in _KIND_WORDS:
            if re.search(pattern, self.text):
                return self._agrees(kind)
        self.assumed.append("its kind, by what it cuts")
        by_work = {"drilling": "drill", "tapping": "tap", "threading": "threading", "grooving": "grooving",
                   "boring": "boring", "driven": "end_mill"}  # fmt: skip
        return by_work.get(self.use.work, "turning")

    def _agrees(self, kind: str) -> str:
        """What a comment says, where the cuts do not show another tool: a turning word on a tool in a bore."""
        if kind == "turning" and self.use.inside:
            return "boring"
        return kind

    # sizes -------------------------------------------------------------------------------------------------------

    def _insert(self) -> Insert | None:
        tables = code_tables()
        tokens = [str(self.said.get("code", ""))]
        tokens += re.findall(r"\b[A-Z]{4}\s?\d{5,6}(?:-[A-Z0-9]+)?|\b[A-Z]{4}[ -]?\d{3}(?:\.\d)?\b", self.text)
        for token in filter(None, tokens):
            try:
                code = decode(token.replace(" ", ""), tables)
            except StandardError:
                continue
            if isinstance(code, InsertCode):
                return insert_from(code, tables)
        return None

    def _size(self, name: str, pattern: re.Pattern[str], most: float) -> float | None:
        """A size that is said, or that a comment says; fractions are inches, and so is everything in a program of
        inches that does not say mm."""
        if name in self.said:
            return _mm(str(self.said[name]))
        for match in pattern.finditer(self.text):
            found = next((one for one in match.groups() if one), None)
            size = _mm(found) if found else None
            if size is not None and self.inch and "/" not in (found or "") and not self._is_metric(match):
                size *= INCH
            if size is not None and 0 < size <= most:
                return size
        return None

    def _is_metric(self, match: re.Match[str]) -> bool:
        """mm stands within a size or right behind it."""
        return "MM" in self.text[match.start() : match.end() + 3]

    def _d(self, usual: float) -> float:
        found = self._size("d_mm", _D_WORDS, 200.0)
        if found is None:
            self.assumed.append(f"a diameter of {usual:g} mm")
            return usual
        return found

    def _of_a_gauge(self) -> float | None:
        """The diameter of a drill that is named by its number or letter, mm (ASME B94.11M)."""
        match = None if "d_mm" in self.said else _GAUGE_WORDS.search(self.text)
        if match is None:
            return None
        name = f"TD #{int(match[1])} " if match[1] else f"TD {match[2]} "
        drills = (one for one in catalogue().tools if isinstance(one, Drill) and one.name.startswith(name))
        return next((one.d_mm for one in drills), None)

    def _nose(self, usual: float) -> float:
        found = self._size("nose_mm", _NOSE_WORDS, 6.0)
        if found is None:
            self.assumed.append(f"a nose of {usual:g} mm")
            return usual
        return found

    def _reach(self, least: float) -> float:
        """A length that is enough for what the program does, and some more."""
        said = self.said.get("length_mm")
        deep = -(self.use.deepest.mm if self.use.deepest else 0.0)
        return float(said) if said is not None else max(least, deep + 15.0)

    # tools -------------------------------------------------------------------------------------------------------

    def _turning(self, kind: str) -> Tool:
        insert = self.insert
        if insert is None:
            nose = self._nose(0.8)
            self.assumed.append("an insert of 80 degrees")
            insert = Insert(shape="C", included_angle_deg=80, ic_mm=12.7, thickness_mm=4.76, nose_radius_mm=nose)
        elif "nose_mm" in self.said:
            insert = insert.changed(nose_radius_mm=float(_mm(str(self.said["nose_mm"])) or 0.0))
        holder = self._holder(insert)
        return TurningTool(**self._head(), insert=insert, holder=holder)

    def _holder(self, insert: Insert) -> Holder:
        code = self._carrier()
        if isinstance(code, TurningTool):
            return code.holder
        angle = 95.0 if insert.included_angle_deg > 70 else 93.0
        if insert.shape == "R":
            angle = 90.0
        return Holder(
            entering_angle_deg=angle,
            shank_width_mm=25,
            functional_width_mm=32,
            functional_length_mm=150,
            head_length_mm=32,
        )

    def _carrier(self) -> TurningTool | BoringTool | None:
        text = str(self.said.get("holder", ""))
        if not text:
            return None
        try:
            code = decode(text, code_tables())
            return None if isinstance(code, InsertCode) else tool_from(code, code_tables())
        except StandardError:
            return None

    def _boring(self, kind: str) -> Tool:
        carried = self._carrier()
        least = self.use.nearest.mm if self.use.nearest else 20.0
        if isinstance(carried, BoringTool):
            bar = carried.bar
        else:
            d = self._size("d_mm", _D_WORDS, 100.0) or max(min(round(0.6 * least), 40), 4)
            if "d_mm" not in self.said:
                self.assumed.append(f"a bar of {d:g} mm")
            bar = self._bar(d).changed(
                entering_angle_deg=95, functional_width_mm=0.62 * d, least_bore_mm=max(min(1.25 * d, least), d + 0.1)
            )
        insert = self.insert
        if insert is None:
            nose = self._nose(0.4)
            ic = 6.35 if bar.diameter_mm < 16 else 9.525
            insert = Insert(
                shape="C", included_angle_deg=80, ic_mm=ic, thickness_mm=3.18, nose_radius_mm=nose, clearance_deg=7
            )
        return BoringTool(**self._head(), insert=insert, bar=bar)

    def _bar(self, d: float) -> Bar:
        """A bar as usual tools in bores have."""
        return Bar(
            entering_angle_deg=90,
            diameter_mm=d,
            functional_width_mm=0.72 * d,
            functional_length_mm=self._reach(5 * d),
            least_bore_mm=1.3 * d,
        )

    def _blade(self, depth: float) -> Blade:
        width = self._size("width_mm", _W_WORDS, 20.0)
        if width is None:
            self.assumed.append("a width of 3 mm")
            width = 3.0
        corner = float(_mm(str(self.said["nose_mm"])) or 0.0) if "nose_mm" in self.said else min(0.2, width / 4)
        return Blade(
            width_mm=width, corner_radius_mm=corner, depth_mm=max(depth, 2.0), block_width_mm=max(20.0, width + 2),
            functional_length_mm=120,
        )  # fmt: skip

    def _depth(self) -> float:
        if "depth_mm" in self.said:
            return float(_mm(str(self.said["depth_mm"])) or 2.0)
        near, wide = self.use.nearest, self.use.widest
        return abs((wide.mm if wide else 0.0) - (near.mm if near else 0.0)) / 2 + 2.0

    def _parting(self, kind: str) -> Tool:
        corner = "free end" if str(self.said.get("tip", "")) in ("4", "1") else "chuck side"
        if "tip" not in self.said:
            self.assumed.append("that its corner toward the chuck is programmed")
        return PartingTool(**self._head(), blade=self._blade(self._depth()), programmed_corner=corner)

    def _grooving(self, kind: str) -> Tool:
        face = kind == "face grooving"
        where = "face" if face else "inside" if self.use.inside else "outside"
        blade = self._blade(self._reach(5.0) if face else self._depth())
        if where == "outside" and "depth_mm" not in self.said and blade.depth_mm < USUAL_DEPTH * blade.width_mm:
            blade = blade.changed(depth_mm=USUAL_DEPTH * blade.width_mm)
            self.assumed.append(f"a blade {blade.depth_mm:g} mm deep")
        bar = None
        if where == "inside":
            d = max(min(round(0.6 * (self.use.nearest.mm if self.use.nearest else 20.0)), 40), 4)
            bar = self._bar(d)
        return GroovingTool(**self._head(), where=where, blade=blade, bar=bar)

    def _threading(self, kind: str) -> Tool:
        leads = [one for one in self.use.leads_mm if one > 0] or [1.5]
        pitch = (min(leads) * 0.5, max(leads) * 1.2)
        width = max(1.2 * max(leads), 1.0)
        tip = _mm(str(self.said["nose_mm"])) if "nose_mm" in self.said else None
        if tip is None:
            tip = round((ROOT_INSIDE if self.use.inside else ROOT_OUTSIDE) * min(leads), 3)
        insert = ThreadInsert(
            profile_deg=60,
            full_profile=False,
            pitch_mm=pitch,
            tip_radius_mm=tip,
            width_mm=width,
            profile_depth_mm=width,
        )
        self.assumed.append(f"a profile of 60 degrees with {tip:g} mm at its tip")
        if self.use.inside:
            d = max(min(round(0.6 * (self.use.nearest.mm if self.use.nearest else 20.0)), 25), 4)
            bar = self._bar(d)
            return ThreadingTool(**self._head(), where="inside", insert=insert, bar=bar)
        holder = Holder(
            entering_angle_deg=90,
            shank_width_mm=25,
            functional_width_mm=28,
            functional_length_mm=150,
            head_length_mm=30,
        )
        return ThreadingTool(**self._head(), insert=insert, holder=holder)

    def _drill(self, kind: str) -> Tool:
        d = self._of_a_gauge() or self._d(4.0 if kind == "centre" else 10.0)
        flute = self._reach(4 * d)
        point = float(self.said.get("point_deg", 118.0))
        form = "twist"
        if kind == "centre":
            form = "spot"
            point = float(self.said.get("point_deg", 90.0))
        return Drill(
            **self._head(), form=form, d_mm=d, point_deg=point, flute_length_mm=flute, overall_length_mm=flute + 40,
            shank_d_mm=d, feed_mm_rev=(0.02, 0.6),
        )  # fmt: skip

    def _reamer(self, kind: str) -> Tool:
        d = self._d(10.0)
        flute = self._reach(5 * d)
        return Reamer(**self._head(), d_mm=d, flute_length_mm=flute, overall_length_mm=flute + 50, shank_d_mm=d)

    def _tap(self, kind: str) -> Tool:
        said = str(self.said.get("thread", "")) or next(iter(_THREAD_WORDS.findall(self.text)), "")
        lead = next(iter(self.use.leads_mm), 1.0) or 1.0
        d, pitch = 6.0 * lead, lead
        name = said.replace(" ", "") or f"lead {lead:g}"
        try:
            known = thread_of(name, thread_tables())
            d, pitch = known.d_mm, known.pitch_mm
        except (StandardError, AttributeError):
            self.assumed.append(f"a diameter of {d:g} mm")
        flute = self._reach(2 * d)
        return Tap(
            **self._head(),
            thread=name[:40],
            d_mm=d,
            pitch_mm=pitch,
            flute_length_mm=flute,
            overall_length_mm=flute + 40,
            shank_d_mm=max(d, 4.0) * 0.7,
        )

    def _bar_stop(self, kind: str) -> Tool:
        return BarStop(**self._head())

    def _bar_puller(self, kind: str) -> Tool:
        self.assumed.append("what it grips")
        return BarPuller(**self._head(), grips_mm=GRIPPED_MM)

    def _mill(self, kind: str) -> Tool:
        d = self._d(6.0)
        return EndMill(
            **self._head(),
            d_mm=d,
            teeth=3,
            flute_length_mm=max(3 * d, 5),
            overall_length_mm=max(6 * d, 30),
            shank_d_mm=d,
        )

    def _chamfer_mill(self, kind: str) -> Tool:
        d = self._d(10.0)
        angle = re.search(r"\b(60|90|120)\s*(?:DEG|°)?\b", self.text)
        if angle is None:
            self.assumed.append("that its cone is 90°")
        return ChamferMill(
            **self._head(),
            d_mm=d,
            point_deg=float(angle[1]) if angle else 90.0,
            teeth=4,
            flute_length_mm=d,
            overall_length_mm=max(6 * d, 40),
            shank_d_mm=d,
        )

    def _thread_mill(self, kind: str) -> Tool:
        d, name = self._d(10.0), _THREAD_WORDS.search(self.text)
        pitch = 1.5
        try:
            pitch = thread_of(name[1].replace(" ", ""), thread_tables()).pitch_mm if name else pitch
        except ToreumaError:
            name = None
        if name is None:
            self.assumed.append(f"its pitch of {pitch:g} mm")
        return ThreadMill(
            **self._head(),
            d_mm=d,
            pitch_mm=(pitch, pitch),
            teeth=4,
            flute_length_mm=2.5 * d,
            overall_length_mm=max(6 * d, 40),
            shank_d_mm=d,
        )


def _mm(text: str) -> float | None:
    """A size in mm; a fraction, or a number with an inch mark, is inches."""
    text = text.strip().upper()
    inch = text.endswith(('"', "IN", "INCH"))
    plain = text.rstrip('"INCHM').strip()
    try:
        if "/" in plain:
            top, bottom = plain.split("/")
            return INCH * float(top) / float(bottom)
        return float(plain) * (INCH if inch else 1.0)
    except (ValueError, ZeroDivisionError):
        return None
