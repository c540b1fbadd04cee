"""Several parts in one run: side two of one beside side one of the next, in time, in programs, and in the proof."""

import itertools
import random
import re
from collections.abc import Callable
from functools import cache

import pytest

from tests.support.handed import Planned, planned_demo
from tests.support.kept import plan_sides, prove_channels
from tests.support.long import everyday
from toreuma.core.channels.balance import balance, one_after_another_s
from toreuma.core.channels.crossing import crossings
from toreuma.core.channels.overlap import overlap
from toreuma.core.channels.schedule import Turn, schedule
from toreuma.core.channels.waits import Act, Wait, laid_out
from toreuma.engine.pair import PairProof, texts_of
from toreuma.shipped.library import demo_job, dialect


def planned(name: str = "vane-stud") -> Planned:
    return planned_demo(name, 3 if demo_job(name).program.parts == 1 else 0)


@cache
def texts() -> dict[int, str]:
    return texts_of(*planned(), dialect("system-a"))


@cache
def proof(name: str = "vane-stud") -> PairProof:
    return prove_channels(*planned(name), dialect("system-a"))


def shortest_s(first: list[tuple[tuple[int, ...], float]], second: list[tuple[tuple[int, ...], float]]) -> float:
    """Of all ways to mix both routes."""
    best = float("inf")
    count = len(first) + len(second)
    for places in itertools.combinations(range(count), len(first)):
        rows, free, side_free = [list(first), list(second)], {1: 0.0, 2: 0.0, 3: 0.0}, [0.0, 0.0]
        for n in range(count):
            side = 0 if n in places else 1
            (channel,), seconds = rows[side].pop(0)
            side_free[side] = free[channel] = max(side_free[side], free[channel]) + seconds
        best = min(best, max(side_free))
    return best


@pytest.mark.parametrize("seed", range(40))
def test_no_order_of_both_routes_is_shorter(seed: int) -> None:
    numbers = random.Random(seed)
    first, second = ([((numbers.randint(1, 3),), numbers.randint(1, 9) / 2) for _ in range(numbers.randint(0, 5))]
                     for _ in range(2))  # fmt: skip
    found = overlap(first, second)
    for side, route in enumerate((first, second)):
        assert [one.index for one in found if one.side == side] == list(range(len(route)))
    assert max((one.end_s for one in found), default=0.0) == pytest.approx(shortest_s(first, second))


@pytest.mark.parametrize("name", everyday(["vane-stud", "runner-hub"], "vane-stud"))
def test_every_part_of_the_run_is_proved(name: str) -> None:
    made = proof(name)
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert len(made.made) == 2
    assert made.gouge_um <= 2
    assert made.leftover_um == 0
    assert made.contacts == ()


@pytest.mark.parametrize("name", everyday(["vane-stud", "runner-hub"], "vane-stud"))
def test_the_cycle_is_the_shortest_there_is_and_shorter_than_one_after_another(name: str) -> None:
    cycle_s = schedule(*planned(name)).cycle_s
    found = balance(*planned(name), 5.0)
    assert found.bound_s - 0.1 <= cycle_s <= found.cycle_s + 0.1
    assert cycle_s < 0.9 * one_after_another_s(*planned(name))
    assert proof(name).cycle_s == pytest.approx(cycle_s, rel=0.02)


def test_channels_wait_where_an_operation_follows_one_of_its_side_elsewhere() -> None:
    """On the hub's machine both carriers work at both spindles: the marks alone keep the order of every side."""
    made = schedule(*planned("runner-hub"))
    laid = made.laid(made.again)
    assert laid.stuck == ()
    for side in (0, 1):
        times = [
            (times, item)
            for channel, row in made.again.items()
            for times, item in zip(laid.times[channel], row, strict=True)
            if isinstance(item, Turn) and item.side == side
        ]
        times.sort(key=lambda one: one[0])
        wanted = [one.operation.id for one in planned("runner-hub")[1][side].operations if one.motions]
        assert [item.planned.operation.id for _, item in times] == wanted
        for (a, _), (b, _) in itertools.pairwise(times):
            assert a[1] <= b[0] + 1e-6


def test_a_finished_part_leaves_before_the_next_one_is_taken() -> None:
    made = schedule(*planned())
    for rows in (made.again, made.end):
        codes = [one.code for one in rows[2] if isinstance(one, Act)]
        assert codes.index("close_second") < codes.index("unload")
    marks = [one.mark for rows in (made.begin, made.again, made.end) for one in rows[1] if isinstance(one, Wait)]
    assert len(set(marks)) == len(marks)


def test_the_run_counts_as_many_parts_as_the_job() -> None:
    for text in texts().values():
        assert f"M98 P1002 L{planned()[0].program.parts - 1}" in text
        assert text.count("M99") == 1


def spoiled(channel: int, pattern: str, instead: str) -> dict[int, str]:
    found = dict(texts())
    found[channel] = re.sub(pattern, instead, found[channel])
    assert found[channel] != texts()[channel], pattern
    return found


def without_parting_wait(text: str) -> str:
    """The blade comes although the second hold has not closed: both marks before it are gone."""
    return re.sub(r"N\d+ M10[34] P12\n", "", text)


SABOTAGE: dict[str, tuple[Callable[[], dict[int, str]], str, str]] = {
    "one channel makes a part less": (lambda: spoiled(2, r"L84", "L83"), "wait.count", "83 times"),
    "the finished part stays in": (lambda: spoiled(2, r"N\d+ M80\n", ""), "transfer.full", "the one before"),
    "let go before its side is done": (
        lambda: spoiled(2, r"(\(OP \d+: FINISH THE OUTSIDE\))", r"M81\n\1"), "transfer.dropped", "before its side",
    ),
    "let go while it turns": (lambda: spoiled(2, r"N\d+ M5\n(N\d+ M81\nN\d+ M80)", r"\1"), "transfer.turning", "turns"),
    "parted off before the second hold has closed": (
        lambda: {channel: without_parting_wait(text) for channel, text in texts().items()}, "transfer.moving", "moves",
    ),
    "the bar let go while it turns": (
        lambda: spoiled(1, r"(\(OP 10: FEED THE BAR\)\n.*\n.*\n)N\d+ M5\n", r"\1"), "transfer.turning", "turns",
    ),
    "a mark of the cycle taken out": (lambda: spoiled(2, r"N\d+ M105 P12\n", ""), "wait.stuck", "for ever"),
}  # fmt: skip


@pytest.mark.parametrize("name", SABOTAGE)
def test_a_spoiled_run_is_caught(name: str) -> None:
    make, code, words = SABOTAGE[name]
    made = prove_channels(*planned(), dialect("system-a"), make())
    errors = {one.code: one.what for one in made.findings if one.severity == "error"}
    assert any(key.startswith(code) and words in what for key, what in errors.items()), errors


def test_a_second_side_on_an_uncut_bar_says_so_and_does_not_fall_over() -> None:
    job = demo_job("vane-stud")
    bare = job.changed(setups=(job.setup.changed(operations=()), job.setups[1]))
    codes = {one.code for one in plan_sides(bare)[1].all_findings if one.severity == "error"}
    assert "finish.nothing" in codes


def test_carriers_of_one_side_do_not_pass_each_other() -> None:
    """With both carriers above the axis, the one nearer the main spindle never works at the second one while the other
    works at the first; the cycle gets longer for it, in the programs and in the search."""
    job, sides, taken = planned("runner-hub")
    near, far = job.machine.carriers
    above = (near.changed(side="above", reference_from_nose_mm=300), far.changed(side="above"))
    crowded = job.changed(machine=job.machine.changed(carriers=above))
    assert crossings(job, 0, "sub") == ()
    assert crossings(crowded, 0, "sub") == crossings(crowded, 1, "main") != ()
    assert crossings(crowded, 0, "main") == crossings(crowded, 1, "sub") == ()
    made = schedule(crowded, sides, taken)
    laid = made.laid(made.again)
    turns = [
        (times, item.side, job.machine.carriers.index(job.machine.carrier_of(item.planned.motions[0].station)))
        for channel, row in made.again.items()
        for times, item in zip(laid.times[channel], row, strict=True)
        if isinstance(item, Turn)
    ]
    crossing = [times for times, side, carrier in turns if (carrier, side) in ((0, 1), (1, 0))]
    assert len(crossing) > 2
    # However long an operation really takes, marks keep the order.
    slow = {channel: tuple(Act("slow", "", 90.0) if isinstance(item, Turn) else item for item in row)
            for channel, row in made.again.items()}  # fmt: skip
    spread = laid_out(slow)
    late = [times for channel, row in made.again.items() for times, item in zip(spread.times[channel], row, strict=True)
            if isinstance(item, Turn) and (job.machine.carriers.index(
                job.machine.carrier_of(item.planned.motions[0].station)), item.side) in ((0, 1), (1, 0))]  # fmt: skip
    for a, b in itertools.combinations(sorted(late), 2):
        assert a[1] <= b[0] + 1e-6
    for a, b in itertools.combinations(sorted(crossing), 2):
        assert a[1] <= b[0] + 1e-6
    assert made.cycle_s >= schedule(job, sides, taken).cycle_s - 1e-6
    found = balance(crowded, sides, taken, 5.0)
    assert found.cycle_s <= made.cycle_s + 0.1
