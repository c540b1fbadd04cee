"""Everyday parts in a turner's words: kinds of them, and sizes drawn from a seed."""

import random
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from benchmarks.everyday.fittings import FITTINGS

__all__ = ["KINDS", "Wanted", "everyday"]

STEELS = ("C45", "11SMnPb30", "42CrMo4", "16MnCr5", "S355J2", "34CrNiMo6", "C15")
STAINLESS = ("1.4301", "1.4404", "X8CrNiS18-9", "X20Cr13", "1.4462")
BRONZES = ("CuSn12", "CuSn7Zn4Pb7", "CuAl10Ni5Fe4")
BRASSES = ("CuZn39Pb3", "CuZn40")
LIGHT = ("AlMgSi1", "EN AW-7075", "EN AW-2007")
IRONS = ("GJL-250", "GJS-500")
PLASTICS = ("POM-C", "PA6", "PEEK")
SMALL = ("slant-bed", "gang lathe", "twin-spindle bar lathe", "toolroom lathe")
LARGE = ("slant-bed", "twin-spindle mill-turn", "toolroom lathe", "geared lathe")
DRIVEN = ("twin-spindle mill-turn",)
METRIC = {6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 16: 2.0, 20: 2.5, 24: 3.0, 30: 3.5}
"""Usual thread sizes and their coarse pitch, mm."""
FINE = {12: 1.5, 16: 1.5, 20: 1.5, 24: 2.0, 30: 2.0, 36: 2.0, 42: 2.0, 48: 2.0}


@dataclass(frozen=True)
class Wanted:
    """A part somebody wants: what it is, of what, on which machine, and its line."""

    kind: str
    seed: int
    line: str
    material: str
    machine: str
    units: Literal["mm", "inch"] = "mm"

    @property
    def name(self) -> str:
        return f"{self.kind} {self.seed}"


Drawn = tuple[str, tuple[str, ...], tuple[str, ...]]
"""A line, the materials it is usually made of, and the machines it goes on."""


def _of(chance: random.Random, *values: float) -> float:
    return chance.choice(values)


def stepped_shaft(c: random.Random) -> Drawn:
    d = _of(c, 20, 25, 30, 35, 40)
    a, b, e = _of(c, 18, 22, 28), _of(c, 25, 30, 45), _of(c, 16, 20, 24)
    line = f"{d - 5:g} k6 x {a:g} c1 / {d:g} x {b:g} / {d + 8:g} x 8 c0.5 both / {d:g} h6 x {e:g} c1; break 0.3"
    return line, STEELS, LARGE


def pin(c: random.Random) -> Drawn:
    d, long = _of(c, 6, 8, 10, 12, 16), _of(c, 20, 30, 36)
    return f"{d:g} h7 x {long:g} c0.5 both ra 0.8; length {long:g}", STEELS + STAINLESS, SMALL


def headed_pin(c: random.Random) -> Drawn:
    d, long = _of(c, 8, 10, 12, 16), _of(c, 24, 32, 40)
    return f"{d:g} f7 x {long:g} c1 / {d + 6:g} x 4 c0.5 both; g 1.1 x {d - 0.5:g} at 4", STEELS, SMALL


def stud(c: random.Random) -> Drawn:
    d = int(_of(c, 8, 10, 12, 16))
    p, a, b = METRIC[d], 2.2 * d, _of(c, 20, 30)
    line = f"M{d}x{p:g}-6g x {a:g} c1 relief / {d + 2:g} x {b:g} / {d + 8:g} x 6 c0.5 both"
    return line, STEELS + STAINLESS, SMALL


def bolt(c: random.Random) -> Drawn:
    d = int(_of(c, 8, 10, 12))
    across = {8: 13, 10: 17, 12: 19}[d]
    line = f"M{d}-6g x {2 * d + 6} c1 / {d} h9 x {_of(c, 10, 16):g} / hex {across} x {0.65 * d:.1f} c0.5 back"
    return line, STEELS + BRASSES, SMALL


def plain_bush(c: random.Random) -> Drawn:
    bore = _of(c, 12, 16, 20, 25, 30)
    od, long = bore + _of(c, 8, 10, 14), _of(c, 20, 25, 30, 40)
    return f"{od:g} p6 x {long:g} c1 both; bore {bore:g} H7 through c0.5 both", BRONZES + STEELS, LARGE


def flanged_bush(c: random.Random) -> Drawn:
    bore = _of(c, 15, 20, 25, 32)
    od, long = bore + _of(c, 8, 12), _of(c, 20, 28, 36)
    line = f"{od:g} m6 x {long:g} c1 / {od + 12:g} x 5 c0.5 both; bore {bore:g} H7 through c0.5 both"
    return line, BRONZES + IRONS + PLASTICS, LARGE


def spacer(c: random.Random) -> Drawn:
    bore, long = _of(c, 8.4, 10.5, 13, 17), _of(c, 8, 12, 20)
    return f"{bore + _of(c, 8, 10):g} x {long:g} c0.5 both; bore {bore:g} through c0.5 both", STEELS + LIGHT, SMALL


def washer(c: random.Random) -> Drawn:
    bore = _of(c, 13, 17, 21, 25)
    return f"{2 * bore:g} x {_of(c, 4, 5, 6):g} c0.5 both; bore {bore:g} through c0.5 both", STEELS + BRASSES, SMALL


def ring(c: random.Random) -> Drawn:
    bore = _of(c, 50, 60, 70, 80)
    od, long = bore + _of(c, 16, 20, 30), _of(c, 12, 18, 24)
    return f"{od:g} h8 x {long:g} c1 both; bore {bore:g} H8 through c1 both", STEELS + STAINLESS + IRONS, LARGE


def flange(c: random.Random) -> Drawn:
    bore, hub = _of(c, 25, 30, 40), _of(c, 50, 56, 60)
    od = hub + _of(c, 40, 50)
    line = (f"{hub:g} h7 x 18 c1 / {od:g} x 14 c1 both; bore {bore:g} H7 through c1 both; "
            f"{_of(c, 4, 6):g} x {_of(c, 6.6, 9):g} on {(hub + od) / 2:g} back")  # fmt: skip
    return line, STEELS + STAINLESS, DRIVEN


def plain_flange(c: random.Random) -> Drawn:
    bore, hub = _of(c, 20, 25, 30), _of(c, 45, 50)
    od = hub + _of(c, 30, 45)
    line = f"{hub:g} x {_of(c, 15, 20):g} r2 / {od:g} x 12 c1 both; bore {bore:g} H7 through c1 both"
    return line, STEELS + IRONS + LIGHT, LARGE


def nut(c: random.Random) -> Drawn:
    d = int(_of(c, 12, 16, 20))
    across = {12: 19, 16: 24, 20: 30}[d]
    return f"hex {across} x {0.8 * d:g} c1 both; bore M{d}-6H through c1 both", STEELS + BRASSES, SMALL


def round_nut(c: random.Random) -> Drawn:
    d = int(_of(c, 20, 24, 30, 36))
    return f"{d + 18} x {_of(c, 10, 14):g} c1 both; bore M{d}x{FINE[d]:g}-6H through c1 both", STEELS, LARGE


def pulley(c: random.Random) -> Drawn:
    od, bore = _of(c, 63, 71, 80, 90), _of(c, 14, 19, 24)
    line = (f"{od:g} x 24 c0.5 both; bore {bore:g} H7 through c1 both; "
            f"4 x v {od - 7.6:g} at 6 angle 40 pitch 3.56")  # fmt: skip
    return line, LIGHT + IRONS + STEELS, LARGE


def nozzle(c: random.Random) -> Drawn:
    d, tip, bore = _of(c, 16, 20), _of(c, 6, 8), _of(c, 2.5, 3, 4)
    line = (f"{tip:g}>{d - 4:g} x {_of(c, 12, 16):g} / {d - 4:g} x 8 / M{int(d)}x1.5-6g x 14 c1 back; "
            f"bore {bore:g} through / {bore + 4:g} x 20 from back")  # fmt: skip
    return line, BRASSES + STAINLESS, SMALL


def piston(c: random.Random) -> Drawn:
    d = _of(c, 40, 50, 63)
    line = (f"{d:g} f7 x {_of(c, 35, 45):g} c1 both; 2 x g 3.2 x {d - 6:g} at 6 pitch 8; "
            f"hole {_of(c, 10.5, 13):g} x 25")  # fmt: skip
    return line, LIGHT + STEELS + IRONS, LARGE


def gear_blank(c: random.Random) -> Drawn:
    bore, hub, od = _of(c, 20, 25, 30), _of(c, 40, 45, 50), _of(c, 80, 90, 110)
    line = f"{hub:g} x 15 c1 / {od:g} h9 x {_of(c, 20, 25, 30):g} c1.5 both; bore {bore:g} H7 through c1 both"
    return line, ("16MnCr5", "42CrMo4", "C45", "18CrNiMo7-6"), LARGE


def housing(c: random.Random) -> Drawn:
    seat, through, od = _of(c, 35, 42, 47), _of(c, 25, 28, 30), _of(c, 62, 70, 75)
    line = (f"{od:g} x {_of(c, 45, 55):g} c1 both; bore {through:g} through / {seat:g} H7 x {_of(c, 12, 15):g} c1 / "
            f"{seat - 3:g} H7 x {_of(c, 12, 14):g} from back c1")  # fmt: skip
    return line, STEELS + IRONS + LIGHT, LARGE


def tube_part(c: random.Random) -> Drawn:
    od, wall, long = _of(c, 40, 50, 60), _of(c, 4, 5, 6), _of(c, 50, 60, 80)
    line = f"{od:g} h9 x {long:g} c0.5 both; bore {od - 2 * wall:g} H9 through c0.5 both"
    return line, STEELS + STAINLESS, LARGE


def slug(c: random.Random) -> Drawn:
    d = _of(c, 80, 100, 120, 160)
    line = f"{d - 20:g} h7 x {_of(c, 15, 20):g} c1 / {d:g} x {_of(c, 20, 25):g} c1 both"
    return line, STEELS + STAINLESS, LARGE


def knob(c: random.Random) -> Drawn:
    d = _of(c, 20, 25, 30)
    return f"{d - 8:g} x 8 c0.5 / {d:g} x 14 knurl diamond 1 c1 both; hole M6 x 12", BRASSES + LIGHT + STEELS, SMALL


def fitting(c: random.Random) -> Drawn:
    size, across, bore = c.choice((("G1/4", 19, 6), ("G3/8", 22, 8), ("G1/2", 27, 11)))
    line = f"{size} x 12 c1 relief / hex {across} x 10 c0.5 both / {bore + 6} x 14 c1; bore {bore} through"
    return line, BRASSES + STAINLESS + STEELS, SMALL


def valve_stem(c: random.Random) -> Drawn:
    d = _of(c, 10, 12, 14)
    line = (f"{d - 4:g}>{d:g} x {_of(c, 6, 8):g} / {d:g} f7 x {_of(c, 30, 40):g} ra 0.8 / "
            f"{d - 2:g} x 12 c1; g 2.7 x {d - 3.6:g} at 20")  # fmt: skip
    return line, STAINLESS, SMALL


def centre_shaft(c: random.Random) -> Drawn:
    d, long = _of(c, 25, 30, 35), _of(c, 150, 180, 220)
    line = (f"{d - 5:g} k6 x 30 c1 / {d:g} h7 x {long - 80:g} / {d + 5:g} x 20 c0.5 both / {d - 5:g} k6 x 30 c1; "
            f"centre 3.15 both; length {long:g}")  # fmt: skip
    return line, STEELS, LARGE


def disc(c: random.Random) -> Drawn:
    d, bore = _of(c, 200, 250, 300, 400), _of(c, 40, 50, 60)
    line = f"{d:g} x {_of(c, 20, 25, 30):g} c2 both; bore {bore:g} H7 through c1 both"
    return line, STEELS + IRONS, ("slant-bed", "twin-spindle mill-turn")


def cap(c: random.Random) -> Drawn:
    d = _of(c, 40, 50, 60)
    line = f"{d:g} x {_of(c, 20, 26):g} c1 both; bore {d - 12:g} H8 x {_of(c, 12, 15):g} c1"
    return line, STEELS + LIGHT + PLASTICS, LARGE


def sleeve_with_groove(c: random.Random) -> Drawn:
    bore, od = _of(c, 30, 35, 40), _of(c, 50, 55, 60)
    line = f"{od:g} h7 x {_of(c, 30, 40):g} c1 both; bore {bore:g} H7 through c1 both / g 2.15 x {bore + 3:g} at 6"
    return line, STEELS + STAINLESS, LARGE


def seal_carrier(c: random.Random) -> Drawn:
    d = _of(c, 45, 55, 65)
    line = (f"{d:g} f7 x {_of(c, 20, 25):g} c1 / {d + 16:g} x 10 c1 both; bore {d - 20:g} H8 through c1 both; "
            f"g 3.6 x {d - 5:g} at 8")  # fmt: skip
    return line, STEELS + STAINLESS + PLASTICS, LARGE


def ball_stud(c: random.Random) -> Drawn:
    d = _of(c, 12, 16, 20)
    line = f"tip R{d / 2:g} / {d:g} x {_of(c, 10, 14):g} / {d - 4:g} x 12 r1 front / M{int(d) - 4}-6g x 16 c1 back"
    return line, STEELS + STAINLESS, SMALL


def tiny(c: random.Random) -> Drawn:
    d = _of(c, 2, 3, 4)
    return f"{d / 2:g} x {_of(c, 4, 6):g} c0.2 / {d:g} x {_of(c, 3, 5):g} c0.2 both", BRASSES + STAINLESS, (
        "gang lathe", "twin-spindle bar lathe", "slant-bed")  # fmt: skip


def inch_shaft(c: random.Random) -> Drawn:
    d = _of(c, 0.75, 1.0, 1.25)
    line = (f"{d - 0.125:g} +0/-.001 x {_of(c, 0.75, 1.0):g} c.03 / {d:g} x {_of(c, 1.0, 1.5):g} / "
            f"{d + 0.25:g} x .375 c.02 both; break .01")  # fmt: skip
    return line, ("1018", "1144", "42CrMo4"), LARGE


def inch_bush(c: random.Random) -> Drawn:
    bore = _of(c, 0.5, 0.625, 0.75, 1.0)
    line = f"{bore + 0.375:g} +.001/0 x {_of(c, 0.75, 1.0, 1.25):g} c.03 both; bore {bore:g} +.001/0 through c.02 both"
    return line, (*BRONZES, "1018"), LARGE


def inch_stud(c: random.Random) -> Drawn:
    size, d = c.choice((("3/8-16 UNC-2A", 0.375), ("1/2-13 UNC-2A", 0.5), ("5/8-18 UNF-2A", 0.625)))
    return f"{size} x {2 * d:g} c.04 relief / {d + 0.25:g} x .5 c.03 both", ("1018", "1.4404", "CuZn36Pb3"), SMALL


KINDS: dict[str, Callable[[random.Random], Drawn]] = {
    one.__name__.replace("_", " "): one
    for one in (
        stepped_shaft, pin, headed_pin, stud, bolt, plain_bush, flanged_bush, spacer, washer, ring, flange,
        plain_flange, nut, round_nut, pulley, nozzle, piston, gear_blank, housing, tube_part, slug, knob, fitting,
        valve_stem, centre_shaft, disc, cap, sleeve_with_groove, seal_carrier, ball_stud, tiny, inch_shaft, inch_bush,
        inch_stud, *FITTINGS,
    )
}  # fmt: skip


def everyday(seed: int) -> Wanted:
    """The part of a seed; kinds come in turn."""
    kind = list(KINDS)[seed % len(KINDS)]
    chance = random.Random(f"{kind} {seed}")
    line, materials, machines = KINDS[kind](chance)
    units: Literal["mm", "inch"] = "inch" if kind.startswith("inch") else "mm"
    return Wanted(kind, seed, line, chance.choice(materials), chance.choice(machines), units)
