"""Random programs in random manners of writing: what they do is known because the moves came first.

Moves are made in absolute places; then they are written the way one shop or another would write them. Nothing of the
reader is used here.
"""

import math
import random
from dataclasses import dataclass, field

__all__ = ["Meant", "Written", "random_program"]


@dataclass(frozen=True)
class Meant:
    """A move as it is meant: how (r, f or t), its end (z, d) in mm, and its feed or lead, mm."""

    how: str
    z: float
    d: float
    feed: float | None


@dataclass
class Written:
    """A text, the dialect it is in, and what it does."""

    text: str
    dialect: str
    moves: list[Meant]
    manner: dict[str, object] = field(default_factory=dict)


@dataclass
class _Manner:
    system: str
    inch: bool
    numbers: bool
    lower: bool
    spaced: bool
    relative: float
    repeats_moves: bool
    centre: bool
    comments: bool
    trailing: bool
    called: bool
    computed: float
    zeros: bool


def random_program(seed: int) -> Written:
    """One program; the same seed gives the same."""
    luck = random.Random(seed)
    manner = _Manner(
        system=luck.choice(["system-a", "system-a", "system-b", "system-c", "iso"]),
        inch=luck.random() < 0.3,
        numbers=luck.random() < 0.5,
        lower=luck.random() < 0.15,
        spaced=luck.random() < 0.7,
        relative=luck.choice([0.0, 0.3]),
        repeats_moves=luck.random() < 0.3,
        centre=luck.random() < 0.4,
        comments=luck.random() < 0.5,
        trailing=luck.random() < 0.5,
        called=luck.random() < 0.3,
        computed=luck.choice([0.0, 0.0, 0.3]),
        zeros=luck.random() < 0.4,
    )
    return _Pen(manner, luck).write()


class _Pen:
    """Writes one program in one manner."""

    def __init__(self, manner: _Manner, luck: random.Random) -> None:
        self.manner, self.luck = manner, luck
        self.unit = 25.4 if manner.inch else 1.0
        self.places = 4 if manner.inch else 3
        self.z, self.d = 0.0, 0.0
        self.moves: list[Meant] = []
        self.lines: list[str] = []
        self.move, self.feed = "", 0.0
        self.incremental = False
        self.known = False
        self.number = 0

    # words -------------------------------------------------------------------------------------------------------

    def num(self, value: float, places: int | None = None) -> str:
        places = self.places if places is None else places
        text = f"{value:.{places}f}"
        if not self.manner.zeros:
            text = text.rstrip("0")
        if text in ("-0.", "-0"):
            text = "0."
        if self.luck.random() < 0.3 and text.startswith(("0.", "-0.")) and len(text.lstrip("-0.")) > 0:
            text = text.replace("0.", ".", 1)
        if self.luck.random() < self.manner.computed:
            part = round(self.luck.uniform(-5, 5), 2)
            return (
                f"[{value - part:.{self.places}f}+[{part}]]" if part < 0 else f"[{value - part:.{self.places}f}+{part}]"
            )
        return text

    def g(self, number: int) -> str:
        return f"G{number:02d}" if self.manner.zeros else f"G{number}"

    def rounded(self, mm: float) -> float:
        return round(mm / self.unit, self.places) * self.unit

    def line(self, *words: str) -> None:
        text = (" " if self.manner.spaced else "").join(word for word in words if word)
        if self.manner.numbers and not text.startswith(("O", "%", "(")):
            self.number += 10
            text = f"N{self.number}{' ' if self.manner.spaced else ''}{text}"
        if self.manner.comments and self.luck.random() < 0.15:
            text += " (as the card says)"
        self.lines.append(text.lower() if self.manner.lower else text)

    # moves -------------------------------------------------------------------------------------------------------

    def to(
        self, how: str, z: float, d: float, feed: float | None = None, more: str = "", shape: int | None = None
    ) -> None:
        """One move, with only the words it needs in this manner."""
        z, d = self.rounded(z), self.rounded(d)
        words: list[str] = []
        code = (
            shape if shape is not None else {"r": 0, "f": 1, "t": 32 if self.manner.system == "system-a" else 33}[how]
        )
        if self.manner.repeats_moves or self.move != f"{code}":
            words.append(self.g(code))
        self.move = f"{code}"
        ways = self.known and not more and self.luck.random() < self.manner.relative
        words += self._places(z, d, ways, both=bool(more) or not self.known)
        if more:
            words.append(more)
        if feed is not None and (feed != self.feed or self.manner.repeats_moves):
            words.append(f"F{self.num(feed / self.unit, 4)}")
            self.feed = feed
        if len(words) > (1 if words[0].startswith("G") else 0) or not words[0].startswith("G"):
            self.line(*words)
        if self.known is False or (z, d) != (self.z, self.d):
            self.moves.append(Meant(how, z, d, feed))
        self.z, self.d, self.known = z, d, True

    def _places(self, z: float, d: float, ways: bool, both: bool) -> list[str]:
        found = []
        if self.manner.system == "system-a" and ways:
            if d != self.d or both:
                found.append(f"U{self.num((d - self.d) / self.unit)}")
            if z != self.z or both:
                found.append(f"W{self.num((z - self.z) / self.unit)}")
            return found
        if ways != self.incremental:
            self.incremental = ways
            self.line(self.g(91 if ways else 90))
        x = (d - self.d) if ways else d
        along = (z - self.z) if ways else z
        if d != self.d or both:
            found.append(f"X{self.num(x / self.unit)}")
        if z != self.z or both:
            found.append(f"Z{self.num(along / self.unit)}")
        return found

    def arc(self, z: float, d: float, radius: float, clockwise: bool, feed: float) -> None:
        """A quarter of a circle from here, whose ends lie a radius apart on both axes."""
        z0, r0 = self.z, self.d / 2
        z, d = self.rounded(z), self.rounded(d)
        if self.incremental:
            self.incremental = False
            self.line(self.g(90))
        chord = math.hypot(z - z0, d / 2 - r0)
        radius = max(self.rounded(radius), chord / 2 + 1e-6)
        more = f"R{radius / self.unit:.5f}"
        if self.manner.centre:
            half = math.sqrt(max(radius**2 - (chord / 2) ** 2, 0.0))
            across = (-(d / 2 - r0) / chord, (z - z0) / chord)
            side = -half if clockwise else half
            centre = ((z0 + z) / 2 + side * across[0], (r0 + d / 2) / 2 + side * across[1])
            across_word, along_word = (centre[1] - r0) / self.unit, (centre[0] - z0) / self.unit
            more = f"I{across_word:.5f}{' ' if self.manner.spaced else ''}K{along_word:.5f}"
        self.to("f", z, d, feed, more, shape=2 if clockwise else 3)

    # program -----------------------------------------------------------------------------------------------------

    def head(self) -> None:
        metric = {"system-c": (71, 70), "iso": (71, 70)}.get(self.manner.system, (21, 20))
        self.lines.append("%" if self.luck.random() < 0.7 else "")
        self.lines.append("O0042 (A PART)" if self.manner.system != "iso" else "%42")
        if self.manner.system == "iso":
            self.lines.pop(-2)
        self.line(self.g(metric[1] if self.manner.inch else metric[0]), self.g(40),
                  self.g(99 if self.manner.system == "system-a" else 95),
                  "" if self.manner.system == "system-a" else self.g(90))  # fmt: skip

    def tool(self, station: int) -> None:
        if self.manner.system == "iso":
            self.line(f"T{station}", f"D{station}", "M6")
        else:
            self.line(f"T{station:02d}{station:02d}")
        clamp = 50 if self.manner.system == "system-a" else 92
        if self.luck.random() < 0.5:
            self.line(self.g(clamp), "S2500")
            self.line(self.g(96), f"S{self.luck.randrange(80, 250)}", "M03" if self.manner.zeros else "M3")
        else:
            self.line(self.g(97), f"S{self.luck.randrange(300, 1500)}", "M3")

    def write(self) -> Written:
        self.head()
        later: list[str] = []
        for station in self.luck.sample(range(1, 9), self.luck.randrange(1, 4)):
            self.tool(station)
            self.to("r", self.luck.uniform(1, 5), self.luck.uniform(50, 70))
            if self.manner.called and not later:
                later = self._apart()
            self._cuts()
            self.to("r", 50, 120)
        if self.incremental:
            self.line(self.g(90))
        self.line("M30")
        if self.manner.trailing and not later and self.lines[0] == "%":
            self.lines.append("%")
        self.lines += later
        return Written("\n".join(self.lines), self.manner.system, self.moves, vars(self.manner))

    def _apart(self) -> list[str]:
        """Some cuts as a program that is called, behind the end."""
        if self.incremental:
            self.incremental = False
            self.line(self.g(90))
        before, number = self.lines, self.luck.randrange(100, 900)
        self.lines = [f"O{number}"]
        self.move = ""
        self._cuts()
        if self.incremental:
            self.incremental = False
            self.line(self.g(90))
        self.line("M99")
        later, self.lines = self.lines, before
        self.line("M98", f"P{number}")
        self.move = ""
        return later

    def _cuts(self) -> None:
        feed = round(self.luck.uniform(0.08, 0.35), 3 if self.manner.inch else 2)
        feed = round(feed / self.unit, 4) * self.unit
        for _ in range(self.luck.randrange(2, 9)):
            what = self.luck.random()
            if what < 0.5:
                axis = self.luck.random()
                z = self.z - self.luck.uniform(1, 20) if axis < 0.7 else self.z
                d = self.d + self.luck.uniform(-6, 8) if axis > 0.3 else self.d
                self.to("f", z, max(d, 1.0), feed)
            elif what < 0.65:
                radius = self.luck.uniform(1, 6)
                self.arc(self.z - radius, self.d + 2 * radius, radius, self.luck.random() < 0.5, feed)
            elif what < 0.8:
                self.to("r", self.z + self.luck.uniform(1, 5), self.d + self.luck.uniform(2, 10))
            elif what < 0.9:
                lead = round(self.luck.choice([1.0, 1.5, 2.0]) / self.unit, 4) * self.unit
                self.to("t", self.z - self.luck.uniform(5, 20), self.d, lead)
                self.move = ""
            else:
                self.to("r", self.luck.uniform(1, 5), self.d + self.luck.uniform(0, 3))
