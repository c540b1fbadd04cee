"""Ten drawings as they lie on the bench, typed as a turner says them, and sizes read off the paper.

``sections`` are (place from the front, bore, outside) in the drawing's unit, as the paper gives them; 0 is solid, and
a knurled step is turned smaller than its ridges by DIN 82.
"""

from dataclasses import dataclass

from toreuma.core.units import System

__all__ = ["DRAWINGS", "Drawing"]

Section = tuple[float, float, float]


@dataclass(frozen=True)
class Drawing:
    name: str
    units: System
    material: str
    machine: str
    line: str
    length: float
    sections: tuple[Section, ...]
    kinds: tuple[str, ...]


DRAWINGS = (
    Drawing(
        "bearing pin", "mm", "42CrMo4 quenched and tempered", "toolroom lathe",
        "20 k6 x 26 c1 relief F 0.6x0.3 ra 0.8 / 30 x 12 / 24.8 x 44 / M24x1.5-6g x 22 / 20 k6 x 14 c1"
        " relief F 0.6x0.3 ra 0.8; g 1.3 x 19 h11 at 20.7; centre 2.5 both; length 118; break 0.3; general medium",
        118, ((10, 0, 20), (21.3, 0, 19), (32, 0, 30), (60, 0, 24.8), (95, 0, 24), (110, 0, 20)),
        ("groove", "relief", "relief", "thread", "centre_hole", "centre_hole"),
    ),
    Drawing(
        "screen bush", "mm", "CuSn12-type bronze", "slant-bed",
        "60 p6 x 40 c3x15 ra 1.6 / 68 x 10; bore 48 H7 through c2x30 both ra 1.6 / g 4 x 52 r1 at middle;"
        " cross 2 x 5 at 25; length 50",
        50, ((10, 48, 60), (25, 52, 60), (45, 48, 68)), ("groove", "holes"),
    ),
    Drawing(
        "governor flange", "mm", "X2CrNiMoN22-5-3", "twin-spindle mill-turn",
        "90 f7 x 24 relief E 0.8x0.3 / 154 x 18; bore 50 H7 through / 70 H8 x 8 from back;"
        " face g 92 > 84 x 2.9 back; 6 x 13 on 124 at 24; 4 x M6 x 14 on 70 first 45; length 42; break 0.3",
        42, ((10, 50, 90), (30, 50, 154), (38, 70, 154)), ("face_groove", "holes", "holes", "relief"),
    ),
    Drawing(
        "gate nut", "mm", "CuAl10Ni-type bronze", "slant-bed",
        "56 h9 x 40 / 60 x 16; bore Tr28x5-7H through c to 29 both; 2 flats 50 x 16 at 40; length 56",
        56, ((20, 23.2, 56), (50, 23.2, 60)), ("flats", "thread"),
    ),
    Drawing(
        "hand wheel hub", "inch", "Steel 1215", "gang lathe",
        "1.250 x 1.250 r.06 / 2.125 x .625 knurl medium diamond; bore .6250/.6257 through c1/32 both;"
        " cross 1/4-20 UNC-2B at .375; break .01; length 1.875",
        1.875, ((0.2, 0.6254, 1.25), (1.5, 0.6254, 2.0986)), ("holes", "knurl"),
    ),
    Drawing(
        "nozzle needle", "mm", "X5CrNi18-10", "toolroom lathe",
        "tip R2 / >14 included 50 / 14>20 arc R40 / 20 g6 x 38 ra 0.8 / 12 x 10 r3 front r1.5 back / M16-6g x 22;"
        " length 96",
        96, ((12.276, 0, 14), (40, 0, 20), (69, 0, 12), (80, 0, 16)), ("thread",),
    ),
    Drawing(
        "lever stud", "inch", "C360-type brass", "twin-spindle bar lathe",
        "3/8-16 UNC-2A x .750 relief / hex 5/8 x .500 c.02 both / .3745/.3735 x .625 / 1/4-28 UNF-2A x .375 relief;"
        " length 2.250",
        2.25, ((0.3, 0, 0.375), (1.0, 0, 0.7217), (1.5, 0, 0.374), (2.1, 0, 0.25)),
        ("thread", "relief", "flats", "thread", "relief"),
    ),
    Drawing(
        "generator pulley", "mm", "EN AW-6082 T6", "slant-bed",
        "40 x 2 / 105 x 38; bore 24 H7 through / 80 x 12 r3 from back; 5 x v 97.4 at 8 angle 40 pitch 3.56",
        40, ((1, 24, 40), (5, 24, 105), (35, 80, 105)), ("groove",) * 5,
    ),
    Drawing(
        "dashpot piston", "mm", "GJL-250", "slant-bed",
        "80 -0.04/-0.06 x 30 / 79.5 x 30; bore 36 H7 through; bore g 20 x 38 at middle; length 60;"
        " out 3 x g 2.5 +0.02/0 x 73.5 at 6 pitch 6; cross 18 H7 at 38",
        60, ((3, 36, 80), (7, 36, 73.5), (13, 36, 73.5), (19, 36, 73.5), (30.5, 38, 79.5), (50, 36, 79.5)),
        ("groove", "groove", "groove", "groove", "holes"),
    ),
    Drawing(
        "sight ring", "mm", "X2CrNiMo17-12-2", "twin-spindle mill-turn",
        "92 x 22; bore M80x1.5-6H x 12 relief / 70 through face ra 0.8; face g 84 > 76 x 2.5 back;"
        " 12 slots 6 x 4 x 8 at 0 from back",
        22, ((4, 78.376, 92), (16, 70, 92)), ("face_groove", "slot", "thread", "relief"),
    ),
)  # fmt: skip
