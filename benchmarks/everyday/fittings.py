"""More everyday parts: with threads at both ends or all over, tapped from both ends, with recesses and seats."""

import random

__all__ = ["FITTINGS"]

STEELS = ("C45", "11SMnPb30", "42CrMo4", "16MnCr5", "S355J2")
FREE = ("11SMnPb30", "CuZn39Pb3")
STAINLESS = ("1.4301", "1.4404")
SMALL = ("slant-bed", "gang lathe", "twin-spindle bar lathe")
LARGE = ("slant-bed", "twin-spindle mill-turn")
COARSE = {5: 0.8, 6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 16: 2.0, 20: 2.5, 24: 3.0}

Drawn = tuple[str, tuple[str, ...], tuple[str, ...]]


def standoff(c: random.Random) -> Drawn:
    d, across = c.choice(((5, 10), (6, 12), (8, 13)))
    deep = 2 * d
    line = f"hex {across} x {c.choice((40, 50, 60))} c0.5 both; hole M{d} x {deep}; hole M{d} x {deep} back"
    return line, FREE, SMALL


def tapped_nut(c: random.Random) -> Drawn:
    d, across, high = c.choice(((6, 10, 5), (8, 13, 6.5), (10, 17, 8), (12, 19, 10)))
    return f"hex {across} x {high:g} c0.8 both; hole M{d} through", FREE + STEELS, SMALL


def coupling_nut(c: random.Random) -> Drawn:
    d, across = c.choice(((8, 13), (12, 19), (16, 24)))
    return f"hex {across} x {3 * d} c1 both; hole M{d} through", STEELS, LARGE


def threaded_rod(c: random.Random) -> Drawn:
    d = c.choice((8, 10, 12, 16))
    return f"M{d} x {c.choice((3, 4, 5)) * d} c1 both", STEELS + STAINLESS, SMALL


def set_screw(c: random.Random) -> Drawn:
    d = c.choice((8, 10, 12))
    return f"M{d} x {2 * d} c1 both", STEELS, SMALL


def reducer(c: random.Random) -> Drawn:
    out, inside = c.choice(((24, 12), (27, 14), (30, 16)))
    line = f"M{out}x1.5-6g x 16 c1 relief / {out + 8} x 10 c1 both; bore M{inside}x1.5-6H through c1 both"
    return line, STEELS, LARGE


def adapter(c: random.Random) -> Drawn:
    size, od, bore = c.choice((("G1/4", 24, 8), ("G3/8", 28, 10), ("G1/2", 34, 14)))
    return f"{od} x {c.choice((35, 40, 45))} c1 both; bore {size} x 18 c0.5 / {bore} through", FREE + STEELS, LARGE


def check_valve(c: random.Random) -> Drawn:
    d, across, bore = c.choice(((14, 19, 6), (16, 22, 8), (18, 24, 8)))
    line = (f"hex {across} x {c.choice((32, 36))} c1 both; "
            f"bore {bore} through / M{d}x1.5-6H x 12 c1 / M{d}x1.5-6H x 12 from back c1")  # fmt: skip
    return line, FREE, LARGE


def pipe_nipple(c: random.Random) -> Drawn:
    size, d, bore = c.choice((("R1/2", 21.3, 15), ("R3/4", 26.9, 20), ("R3/8", 17.2, 12)))
    return f"{size} x 18 c1 / {d:g} x 20 / {size} x 18 c1 back; bore {bore} through", ("S355J2", *STAINLESS), LARGE


def spool(c: random.Random) -> Drawn:
    d = c.choice((14, 16, 20))
    line = f"{d} f6 x 12 c0.5 / {d - 4} x {c.choice((8, 12, 20))} / {d} f6 x 14 / {d - 4} x 8 / {d} f6 x 12 c0.5 back"
    return line, STEELS, LARGE


def dumbbell(c: random.Random) -> Drawn:
    d = c.choice((24, 30, 36))
    return f"{d} x 20 c1 / {d - 10} x {c.choice((30, 40))} / {d} x 20 c1 back", STEELS, LARGE


def back_knob(c: random.Random) -> Drawn:
    d = c.choice((22, 25, 28))
    line = f"{d} x 16 knurl straight 1 c1 both / {d - 14} x 8 c0.5; hole M5 x 12 back"
    return line, FREE, SMALL


def ball_handle(c: random.Random) -> Drawn:
    d = c.choice((8, 10))
    return f"M{d}-6g x {1.5 * d:g} c1 / {d}>{d + 5} x 50 / {d + 16} x 20 c1 both", STEELS, LARGE


def deep_bush(c: random.Random) -> Drawn:
    d = c.choice((10, 12, 14))
    return f"{3 * d + 4} x {6 * d} c1 both; bore {d} H7 through c0.5 both", STEELS, LARGE


def stepped_blind(c: random.Random) -> Drawn:
    d = c.choice((28, 30, 34))
    line = f"{d + 16} x 50 c1 both; bore {d} H7 x 15 c0.5 / 20 x 15 / {c.choice((10, 12))} x 10"
    return line, STEELS, LARGE


def bearing_house(c: random.Random) -> Drawn:
    d = c.choice((42, 47, 52))
    line = (f"{d + 25} x 40 c1 both; bore {d - 15} through / {d} H7 x 14 c0.5 / g 1.85 x {d + 2.5:g} at 11 / "
            f"{d} H7 x 14 from back c0.5")  # fmt: skip
    return line, STEELS, LARGE


def trunnion(c: random.Random) -> Drawn:
    d = c.choice((16, 20, 25))
    line = f"{d} h6 x 25 c1 relief F 0.6x0.3 / {d + 16} x 12 c1 both / {d} h6 x 25 c1 relief F 0.6x0.3"
    return line, STEELS, LARGE


def gear_shaft(c: random.Random) -> Drawn:
    d = c.choice((15, 17, 20))
    line = (f"{d} k6 x 18 c1 / {d + 3} x 10 / {2 * d} h9 x 25 c1.5 both / {d + 3} x 10 / {d} k6 x 18 c1; "
            f"centre 2.5 both")  # fmt: skip
    return line, ("16MnCr5", "42CrMo4"), LARGE


def screw_plug(c: random.Random) -> Drawn:
    d, across = c.choice(((18, 22), (22, 27), (27, 32)))
    line = f"M{d}x1.5-6g x 16 c1.5 relief / hex {across} x 12 c1 both; hole 8 x 8"
    return line, STEELS + STAINLESS, LARGE


def gland(c: random.Random) -> Drawn:
    d, across = c.choice(((20, 24), (24, 30)))
    line = (
        f"M{d}x1.5-6g x 14 c1 relief / hex {across} x 10 c0.5 both; bore {d - 7.5:g} through / {d - 4} x 10 from back"
    )
    return line, FREE + STAINLESS, LARGE


def thin_sleeve(c: random.Random) -> Drawn:
    d = c.choice((30, 36, 45))
    return f"{d} x 30 c0.3 both; bore {d - 3} H8 through c0.3 both", ("CuSn12", "C45"), LARGE


FITTINGS = (
    standoff, tapped_nut, coupling_nut, threaded_rod, set_screw, reducer, adapter, check_valve, pipe_nipple, spool,
    dumbbell, back_knob, ball_handle, deep_bush, stepped_blind, bearing_house, trunnion, gear_shaft, screw_plug, gland,
    thin_sleeve,
)  # fmt: skip
