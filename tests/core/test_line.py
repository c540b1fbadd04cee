"""The line: what turners type, what it gives, where it was not understood, and that it writes what it reads."""

import random

import pytest

from tests.support.parts import random_part
from toreuma.core.errors import PartError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.line import Line, read_line, written_line
from toreuma.core.model import Part
from toreuma.core.model.feature import Groove
from toreuma.core.units import System
from toreuma.engine.line import line_tables
from toreuma.shipped.library import demo_job, demo_names


def said(text: str, units: System = "mm") -> Line:
    return read_line(text, units, line_tables())


def part_of(text: str, units: System = "mm") -> Part:
    line = said(text, units)
    assert not line.faults, [str(fault) for fault in line.faults]
    assert line.part is not None
    return line.part


def ends(part: Part, inside: bool = False) -> list[tuple[float, float]]:
    return [(round(e.z_mm, 4), round(e.d_mm, 4)) for e in (part.inside if inside else part.outside)]


STEPPED = [(0, 30), (-18, 30), (-18, 44), (-45, 44), (-45, 62), (-60, 62)]


@pytest.mark.parametrize(
    "text",
    [
        "30 x 18 c1 / 44 x 27 r2 / 62 h7 x 15",
        "30x18c1/44x27r2/62h7x15",
        "Ø30 × 18 C1, Ø44 × 27 R2, Ø62 h7 × 15",
        "30 x 18 mm c 1\n44 x 27 r 2\n62 h7 x 15",
        "30,0 x 18,0 1x45 / 44 to 45 r2 / 62 h7; length 60",
        "30 to 18 c1 / 44 x 27 fillet 2 / 62 h7 x 15; length 60",
    ],
)
def test_a_stepped_part_however_it_is_written(text: str) -> None:
    part = part_of(text)
    assert ends(part) == STEPPED
    chamfer, fillet = part.outside[0].corner, part.outside[3].corner
    assert chamfer is not None
    assert (chamfer.kind, chamfer.size_mm) == ("chamfer", 1)
    assert fillet is not None
    assert (fillet.kind, fillet.size_mm) == ("round", 2)
    size = part.outside[-1].size
    assert size is not None
    assert (size.fit, size.upper_um, size.lower_um) == ("h7", 0, -30)


def test_tapers_by_ends_angle_and_ratio() -> None:
    assert ends(part_of("30>40 x 12"))[-1] == (-12, 40)
    assert ends(part_of("40 x 20 angle 15"))[-1] == (-20, 50.718)  # 40 + 2 · 20 · tan 15°
    assert ends(part_of("40 x 20 included 30"))[-1] == (-20, 50.718)
    assert ends(part_of("40 x 20 taper 1:10"))[-1] == (-20, 42)
    assert ends(part_of("40 x 20 angle -15"))[-1] == (-20, 29.282)
    assert ends(part_of("20 x 5 / >30 angle 45"))[-1] == (-10, 30)


def test_arcs_and_a_rounded_tip_tangent_to_its_cone() -> None:
    arc = part_of("20 x 10 / 20>40 x 12 R50 / 40 x 5").outside[2]
    assert (arc.kind, arc.radius_mm, arc.bulge) == ("arc", 50, "convex")
    assert part_of("20>40 x 12 arc 50 hollow").outside[1].bulge == "concave"
    tip = part_of("tip R2 / >14 included 50 / 14 x 10")
    # tangent point of a ball R on a cone of half angle a: r = R cos a, behind the tip by R (1 - sin a)
    assert tip.outside[0].d_mm == pytest.approx(3.62523, abs=1e-5)
    assert tip.outside[0].z_mm == pytest.approx(-1.15476, abs=1e-5)
    assert tip.outside[1].d_mm == 14


def test_bores_from_either_face() -> None:
    through = part_of("50 x 60 / bore 16 through / 24 H7 x 30 from back")
    assert ends(through, inside=True) == [(0, 16), (-30, 16), (-30, 24), (-60, 24)]
    assert through.inside[-1].size is not None
    assert through.inside[-1].size.upper_um == 21
    blind = part_of("50 x 60; bore 24 x 20 from back")
    assert blind.inside_from_back
    assert ends(blind, inside=True) == [(0, 24), (-20, 24)]
    assert ends(part_of("50 x 60; bore 30 x 10 / 20 x 15"), inside=True)[-1] == (-25, 20)
    assert ends(part_of("50 x 60; bore 16 through / 30 x 8 / 24 x 10 from back"), inside=True)[1] == (-8, 30)


def test_features_stand_where_they_were_said() -> None:
    part = part_of(
        "30 x 40 / 60 x 10; g 3 x 24 at 12; g 3 x 24 at 5 from back; face g 50 > 40 x 2 back; 6 x 6.6 on 50;"
        " 4 x M6 x 14 on 45 first 45 back; cross 2 x 5 at 25; hole M10 x 20; centre 4 both; 2 flats 26 x 10 at 0;"
        " slot 6 x 3 at 5 to 25; 3 x g 1.5 x 27 at 20, 30, 34; knurl RGE 1 x 8 at 41; thread M30x2 x 10 at 0"
    )
    kinds = [f.kind for f in part.features]
    assert kinds[:2] == ["groove", "groove"]
    assert kinds.count("groove") == 5
    assert kinds.count("centre_hole") == 2
    assert part.features[0].z_mm == -12
    assert part.features[1].z_mm == -42
    tapped = next(f for f in part.features if f.kind == "holes" and f.thread)
    assert (tapped.on, tapped.count, tapped.d_mm, tapped.start_deg) == ("back", 4, 5, 45)  # type: ignore[union-attr]
    drilled = next(f for f in part.features if f.kind == "axial_hole")
    assert drilled.d_mm == 8.5
    assert drilled.thread_length_mm == 20


def test_threads_bring_their_seat_and_their_relief() -> None:
    part = part_of("M24x2 x 20 relief / 30 x 10")
    size = part.outside[1].size
    assert size is not None
    assert (size.upper_um, size.lower_um) == (-38, -318)
    thread, relief = part.features
    assert thread.kind == "thread"
    assert thread.from_z_mm == 0
    assert relief.kind == "relief"
    assert thread.length_mm == 20 - relief.length_mm
    short = part_of("M24x2 x 20 / 30 x 10").features[0]
    assert short.kind == "thread"
    assert short.length_mm == 12
    whole = part_of("30 x 10 / M24 x 20").features[0]
    assert whole.kind == "thread"
    assert whole.designation == "M24"
    assert whole.length_mm == 8
    nut = part_of("40 x 20; bore M20x1.5 through")
    assert nut.inside[0].d_mm == pytest.approx(20 - 1.082532 * 1.5, abs=6e-4)


@pytest.mark.parametrize("line", ["M20 x 20 relief / 20 h6 x 25 / 30 x 10", "20 x 20 relief, thread M20 / 20 h6 x 25"])
def test_the_relief_of_a_thread_before_a_seat_of_its_diameter_is_a_groove(line: str) -> None:
    thread, groove = part_of(line).features
    assert isinstance(groove, Groove)
    assert groove.z_mm == thread.from_z_mm - thread.length_mm
    assert groove.z_mm - groove.width_mm == pytest.approx(-20)
    assert groove.d_mm < 20 - 1.2 * 2.5  # below the core of the thread


def test_inches_fractions_and_two_written_limits() -> None:
    part = part_of("3/8-16 UNC-2A x .750 relief / hex 5/8 x 1/2 / .3745/.3735 x .625", "inch")
    assert ends(part)[-1] == (-47.625, 9.5123)
    assert part.outside[-1].size is not None
    assert part.outside[-1].size.lower_um == pytest.approx(-25.4)
    assert next(f for f in part.features if f.kind == "flats").distance_mm == 7.9375  # type: ignore[union-attr]
    assert ends(part_of("2-1/4 x 1 / 1 1/2 x 1/2", "inch")) == [
        (0, 57.15),
        (-25.4, 57.15),
        (-25.4, 38.1),
        (-38.1, 38.1),
    ]
    assert ends(part_of("1in x 20")) == [(0, 25.4), (-20, 25.4)]


@pytest.mark.parametrize(
    ("loose", "tidy"),
    [
        ("collar 68 x 10 / seat 60 p6 x 40", "68 x 10 'collar' / 60 p6 x 40 'seat'"),
        ("C1 / 20 x 30 / R5 / 40 x 10 / c1", "20 x 30 c1 front r5 back / 40 x 10 c1 back"),
        ("20 x 30 / c2 / 40 x 10 / r3 / 30 x 5", "20 x 30 / 40 x 10 c2 front / 30 x 5 r3 front"),
        ("thread M24x2 x 20 relief / 30 x 10", "M24x2 x 20 relief / 30 x 10"),
        ("M24x1,5 6g x 22 with run-out / Ø30 dia 18 long", "M24x1.5-6g x 22 / 30 x 18"),
        ("m24 x 2 x 20 / 30 x 10", "M24x2 x 20 / 30 x 10"),
        ("80 x 20; 6 off 6.6 on PCD 50 equally spaced", "80 x 20; 6 x 6.6 on 50"),
        ("30 x 40; groove 3 wide Ø24 at 12", "30 x 40; g 3 x 24 at 12"),
        ("30 x 40; g 3 x 2 deep at 12", "30 x 40; g 3 x 26 at 12"),
        ("50 x 60; bore 16 through / counterbore 30 x 8", "50 x 60; bore 30 x 8 / 16 through"),
        ("hex 30 AF x 16", "hex 30 x 16"),
        ("40 x 30; bore 20 x 20 deep", "40 x 30; bore 20 x 20"),
        ("30 x 18 2x45° / 40 x 10 chamfer 1 both ends", "30 x 18 c2 / 40 x 10 c1 both"),
        ("R1/2 x 15 / 30 x 10", "R1/2 x 15 / 30 x 10"),
    ],
)
def test_loose_words_mean_the_same_as_tidy_ones(loose: str, tidy: str) -> None:
    assert part_of(loose) == part_of(tidy)


@pytest.mark.parametrize(
    ("text", "marked", "words"),
    [
        ("30 x 18 / 44 y 27 / 62 x 15", "y", "step"),
        ("30 x", "", "length of the step is missing"),
        ("30 x 18 / 44", "44", "no length"),
        ("30 x 18; g 3 x 24", "", "where the groove stands"),
        ("30 x 18; g 3 x 24 at 17", "g 3 x 24 at 17", ""),
        ("30 x 18; zorp 5", "zorp", "not known"),
        ("M24x9.7 x 20", "M24", ""),
        ("30 x 40; bore 20 x 50", "bore 20 x 50", "deep"),
        ("30 x 40; bore 35 through", "bore 35 through", ""),
        ("30 x 18 / 20 x 22; length 50", "20 x 22", "come to 40"),
        ("30 h99 x 18", "h99", ""),
        ("30 x 18 relief", "30 x 18 relief", "no shoulder"),
        ("30 x 1e", "e", ""),
    ],
)
def test_a_mistake_is_marked_at_its_place(text: str, marked: str, words: str) -> None:
    line = said(text)
    assert line.faults
    first = line.faults[0]
    found = text[first.start : first.end]
    assert found == marked or (not marked and first.start == len(text)) or marked in found
    assert words in first.what
    assert first.expected


def test_what_is_not_finished_at_the_end_leaves_the_rest() -> None:
    line = said("30 x 18 / 44 x 27 / 62")
    assert line.part is None or ends(line.part)[-1] == (-45, 44)
    line = said("30 x 18 / 44 x 27; g 3 x")
    assert line.part is not None
    assert ends(line.part)[-1] == (-45, 44)
    assert line.faults


@pytest.mark.parametrize("name", demo_names())
@pytest.mark.parametrize("named", [True, False])
def test_a_demo_part_is_written_as_it_reads(name: str, named: bool) -> None:
    job = demo_job(name)
    text = written_line(job.part, job.units, line_tables(), named)
    back = read_line(text, job.units, line_tables(), job.part.name).part
    assert back is not None
    if named:
        assert back == job.part
    else:
        assert [one.changed(name="") for one in job.part.outside] == list(back.outside)
        assert [one.changed(name="") for one in job.part.features] == list(back.features)


def buildable(seed: int) -> Part:
    source = random.Random(seed)
    while True:
        part, _ = random_part(source)
        try:
            build_part(part)
        except PartError:
            continue
        return part


@pytest.mark.parametrize("seed", range(30))
def test_random_parts_are_written_as_they_read(seed: int) -> None:
    part = buildable(seed)
    for units in ("mm", "inch"):
        back = read_line(written_line(part, units, line_tables()), units, line_tables()).part
        assert back is not None
        for one, other in zip(part.outside, back.outside, strict=True):
            assert other.z_mm == pytest.approx(one.z_mm, abs=1e-6)
            assert other.d_mm == pytest.approx(one.d_mm, abs=1e-6)
            assert (other.kind, other.bulge if other.kind == "arc" else "") == (
                one.kind, one.bulge if one.kind == "arc" else "",
            )  # fmt: skip


WORDS = [
    "30",
    "18",
    "x",
    "/",
    ";",
    ",",
    "c1",
    "r2",
    "44",
    "62",
    "h7",
    ">",
    "12",
    "angle",
    "included",
    "R50",
    "hollow",
    "g",
    "3",
    "at",
    "24",
    "M24x2",
    "relief",
    "bore",
    "16",
    "through",
    "H7",
    "from",
    "back",
    "6.6",
    "on",
    ".",
    "-",
    "+",
    "+0.02/-0.01",
    "±",
    "1/2",
    "2-1/4",
    "in",
    "thou",
    "hole",
    "centre",
    "cross",
    "flats",
    "slot",
    "knurl",
    "face",
    "ra",
    "'",
    "tip",
    "length",
    "break",
    "F",
    "0.6x0.3",
    "v",
    "pitch",
    "to",
    "deep",
    "0",
    "1e9",
    "99999999",
    "-5",
    "=",
    "(",
    "#",
    "@",
    "Ø",
    "G1/2",
    "1/4-20",
    "Tr20x4",
    "both",
    "NPT",
    "hex",
    "10",
    "first",
    "\n",
]


@pytest.mark.parametrize("seed", range(40))
def test_nothing_typed_is_more_than_a_fault(seed: int) -> None:
    source = random.Random(seed)
    for _ in range(12):
        words = [source.choice(WORDS) for _ in range(source.randint(1, 25))]
        text = source.choice(("", " ")).join(words)
        line = said(text, source.choice(("mm", "inch")))
        assert all(0 <= fault.start <= fault.end <= len(text) for fault in line.faults), text
        if line.part is not None:
            again = said(written_line(line.part, "mm", line_tables()))
            assert again.part == line.part, text


@pytest.mark.parametrize(
    ("typed", "fit"), [("32 m6 x 36", "m6"), ("32m6 x 36 c1 / 40 x 5", "m6"), ("32 M7 x 20", "M7")]
)
def test_a_fit_of_the_letter_m_is_no_thread(typed: str, fit: str) -> None:
    size = part_of(typed).outside[1].size
    assert size is not None
    assert size.fit == fit


@pytest.mark.parametrize("typed", ["60 x 20; 4 x M6 x 14 on 40", "60 x 20; cross M6 at 10", "60 x 20; hole M6 x 10"])
def test_a_thread_of_the_letter_m_is_no_fit(typed: str) -> None:
    assert getattr(part_of(typed).features[0], "thread", "").startswith("M6")


def test_two_numbers_behind_a_thread_are_pitch_and_length_or_both_depths() -> None:
    """A pitch is smaller than half of the thread: ``M6 x 13 x 17`` is a hole 17 deep with 13 of thread."""
    (hole,) = part_of("30 x 40; hole M6 x 13 x 17").features
    assert (hole.thread, hole.thread_length_mm, hole.depth_mm) == ("M6", 13, 17)
    (thread,) = part_of("M24 x 2 x 20 / 30 x 10").features
    assert thread.designation.startswith("M24x2")


@pytest.mark.parametrize(
    ("words", "full", "deep"),
    [
        ("4 x M6 x 12 on 40", 12, 17),
        ("4 x M6 x 12 x 16 on 40", 12, 16),
        ("4 x M6 x 12 through on 40", 12, None),
        ("4 x M6 x 26 on 40", 26, None),  # a drill five pitches deeper comes out behind
        ("4 x M6 on 40", None, None),
        ("cross 2 x M6 x 12 at 15", 12, 17),
    ],
)
def test_a_depth_of_tapped_holes_beside_the_axis_is_that_of_their_thread(
    words: str, full: float | None, deep: float | None
) -> None:
    (holes,) = part_of(f"60 x 30; {words}").features
    assert (holes.thread_length_mm, holes.depth_mm) == (full, deep)


@pytest.mark.parametrize(
    ("words", "on", "length"),
    [
        ("slot 8 x 4 on front", "front", 0.0),
        ("slot 8 x 4 x 30 on the front face", "front", 30.0),
        ("slot 8 x 4 x 30 in the face", "front", 30.0),
        ("slot 8 x 4 on the back face", "back", 0.0),
        ("keyway 8 x 4 on the outside from 10 to 30", "outside", 0.0),
        ("keyway 8 x 4 in the bore at 0 to 20", "inside", 0.0),
    ],
)
def test_where_a_slot_lies_is_said_in_words(words: str, on: str, length: float) -> None:
    (slot,) = read_line(f"45 x 60; bore 20; {words}", "mm", line_tables(), "x").part.features  # type: ignore[union-attr]
    assert (slot.kind, slot.on, slot.length_mm) == ("slot", on, length)


def test_holes_at_a_place_stand_square_to_the_axis_and_no_step_goes_through() -> None:
    (holes,) = read_line("45 x 60; 3 holes 5 x 10 at 20", "mm", line_tables(), "x").part.features  # type: ignore[union-attr]
    assert (holes.on, holes.count, holes.z_mm, holes.depth_mm) == ("outside", 3, -20.0, 10.0)
    read = read_line("45 x 60; 3 x 5 through at 30", "mm", line_tables(), "x")
    assert "cross 3 x 5 at 20" in str(read.faults[0])
