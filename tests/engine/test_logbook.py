"""The logbook in use: who cut a size, what to set, what is ahead, what an edge has done, what plans begin from."""

import numpy as np
import pytest

from tests.support.engine import recorded
from toreuma.core.advise.seen import remedies
from toreuma.core.cutting.figures import Figure
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.engine.library import library
from toreuma.engine.logbook.book import Book, begin_run, taught
from toreuma.engine.logbook.constants import constants_of, counted, forget_constant, in_words, keep_constant
from toreuma.engine.logbook.edges import cutting_of_tool
from toreuma.engine.logbook.first_article import at_place, size_of
from toreuma.engine.logbook.renewed import job_with_shop_values
from toreuma.log import EdgeUsed, Note, Observation, OffsetSet, PartMade, Stop, Store
from toreuma.shipped.library import demo_job

DAY = 1_800_000_000.0


@pytest.fixture
def book(store: Store, spear: Job) -> Book:
    return Book(store, begin_run(store, recorded(), spear, DAY), recorded())


def keys(book: Book) -> dict[str, str]:
    return {one.key: book.tool_of(one) for one in book.lines}


def test_every_turned_size_knows_the_tool_that_cut_it(book: Book, store: Store) -> None:
    """Told by the program that was cut, not by the plan's intent."""
    found = keys(book)
    assert found["outside 2 d"] == found["outside 4 d"] == found["outside 8 d"] == "T2"
    assert found["feature 0 over-three-wires"] == "T5"
    assert found["length overall"] == "T3"
    ring = Book(store, begin_run(store, recorded(), demo_job("seat-ring"), DAY), recorded())
    assert keys(ring)["outside 1 d"] == keys(ring)["outside 3 d"] == "T1"
    assert keys(ring)["inside 2 d"] == "T5"


def test_a_first_article_with_an_offset_and_taper_is_taken_apart(book: Book) -> None:
    rng = np.random.default_rng(4)
    for line in book.lines:
        if line.key in ("outside 2 d", "outside 4 d", "outside 8 d"):
            for z in np.linspace(max(line.ends_z) - 1, min(line.ends_z) + 1, 3):  # type: ignore[type-var]
                error = 0.018 + 0.0002 * (z + 90.5) + rng.normal(0, 0.001)
                book.enter(1, at_place(line.key, round(float(z), 2)), line.aim + error, DAY, uncertainty=0.002)
    found = book.article(1)
    offset, taper = found.split.of("offset X", "T2"), found.split.of("taper")
    assert offset is not None
    assert taper is not None
    assert offset.value == pytest.approx(0.018, abs=offset.uncertainty + 0.003)
    assert taper.matters
    assert 100 * taper.value == pytest.approx(0.020, abs=100 * taper.uncertainty + 0.003)
    ((proposed, words),) = found.offsets
    assert (proposed.tool, proposed.axis) == ("T2", "X")
    assert words.startswith("T2 Slim 55°: X -0.0")
    measured = [row for row in found.rows if row.found is not None]
    assert all(row.tool == "T2 Slim 55°" for row in measured)


def test_what_so_few_sizes_do_not_tell_names_the_one_that_would(book: Book) -> None:
    line = next(one for one in book.lines if one.key == "outside 2 d")
    assert line.aim is not None
    book.enter(1, "outside 2 d", line.aim + 0.012, DAY, uncertainty=0.002)
    found = book.article(1)
    told = " ".join(found.says)
    assert "cannot be told apart from" in told
    assert "measure Guide, Ø 22 at Z" in told or "measure Neck" in told or "measure Flange" in told
    assert [(one.axis, round(one.mm, 3), one.sure) for one, _ in found.offsets] == [("X", -0.012, False)]


def test_sizes_out_of_limits_and_entries_that_cannot_be(book: Book) -> None:
    book.enter(1, "outside 2 d", 21.99, DAY)
    row = next(row for row in book.article(1).rows if row.line.key == "outside 2 d")
    assert row.within is False
    assert row.uncertainty == pytest.approx(0.004)  # of the means the list names
    with pytest.raises(ToreumaError, match="no line 'nonsense'"):
        book.enter(1, "nonsense", 1.0, DAY)
    with pytest.raises(ToreumaError, match="no part 0"):
        book.enter(0, "outside 2 d", 22.0, DAY)
    assert size_of("outside 2 d@-20.5") == ("outside 2 d", -20.5)
    assert size_of("outside 2 d@x") == ("outside 2 d", None)


def test_offsets_and_new_edges_count_behind_the_last_part(book: Book, store: Store) -> None:
    """What was set after the last measured part is in what is said of the next one."""
    rng = np.random.default_rng(2)
    line = next(one for one in book.lines if one.key == "outside 2 d")
    assert line.aim is not None
    for part in range(1, 31):
        value = line.aim + 0.0002 * part + rng.normal(0, 0.0005)
        book.enter(part, line.key, value, DAY + 143 * part, uncertainty=0.001)
    before = book.size(line.key).fit
    assert before is not None
    assert before.level == pytest.approx(line.aim + 0.006, abs=0.001)
    assert before.correction < -0.004
    store.add(book.run.id, OffsetSet(after_part=30, tool="T2", axis="X", mm=-0.006, at=DAY))
    after = book.size(line.key).fit
    assert after is not None
    assert after.level == pytest.approx(line.aim, abs=0.001)
    book.change_edge("T2", 30, DAY)
    fresh = book.size(line.key)
    assert fresh.fit is not None
    assert fresh.fit.level < after.level - 0.002  # the wear is gone with the edge
    assert fresh.changes == (30,)
    assert fresh.sets == ((30, -0.006),)


def test_edges_are_counted_and_changed(book: Book, store: Store) -> None:
    assert {one.tool.id for one in book.edges()} == {"T1", "T2", "T3", "T4", "T5"}
    minutes, metres, speed, life = cutting_of_tool(book.sides, "T1")
    assert life is not None
    by_hand = [one for side in book.sides for one in side.operations if one.operation.tool == "T1"]
    assert minutes == pytest.approx(sum(one.times.cutting_s for one in by_hand) / 60)
    assert metres == pytest.approx(minutes * speed)
    for part in range(1, 13):
        store.add(book.run.id, PartMade(number=part, at=DAY + part))
    edge = next(one for one in book.edges() if one.tool.id == "T1")
    assert edge.parts == 12
    assert edge.share == pytest.approx(12 * minutes / life)
    assert edge.by_risk is not None
    assert edge.by_risk < life / minutes  # before its middle life
    assert "change it now" in edge.says
    book.change_edge("T1", 12, DAY, wear_mm=0.21)
    done = next(one for one in store.edges(book.run.id) if one.to_part == 12)
    assert (done.corner, done.worn, done.wear_mm) == (1, True, 0.21)
    assert done.minutes == pytest.approx(12 * minutes)
    assert done.planned_min == pytest.approx(life)
    assert next(one for one in book.edges() if one.tool.id == "T1").edge.corner == 2
    with pytest.raises(ToreumaError, match="no edge in"):
        book.change_edge("T99", 12, DAY)


class TestConstants:
    """What the log has seen moves what plans begin from, says so, and can be left out."""

    def worn_out(self, store: Store, book: Book, life_share: float, count: int = 40) -> None:
        """Edges that lasted a share of what was planned, at several speeds."""
        rng = np.random.default_rng(1)
        _, _, speed, life = cutting_of_tool(book.sides, "T1")
        assert life is not None
        for n in range(count):
            vc = speed * float(np.exp(rng.uniform(-0.2, 0.2)))
            planned = life * (speed / vc) ** (1 / 0.23)
            lasted = planned * life_share * float(np.exp(rng.normal(0, 0.15)))
            edge = EdgeUsed(
                tool="T1", code="C", corner=n, from_part=1, to_part=9, at=DAY, minutes=lasted, vc_m_min=vc,
                planned_min=planned, cutting="coated carbide", seen="flank", worn=True,
            )  # fmt: skip
            store.add(book.run.id, edge)

    def test_edges_that_last_half_as_long_slow_the_next_plan_down(self, store: Store, book: Book, spear: Job) -> None:
        self.worn_out(store, book, 0.5)
        material = library().materials["1.4404"]
        found = {(one.kind, one.cutting): one for one in constants_of(store, material, spear.machine.name)}
        exponent, constant = found["exponent", "coated carbide"], found["constant", "coated carbide"]
        assert exponent.learned.count == constant.learned.count == 40
        assert exponent.learned.low <= 0.23 <= exponent.learned.high
        assert constant.learned.value < 0.95 * constant.learned.table
        assert found["exponent", "cermet"].learned.count == 0
        assert exponent.source == "from 40 edges of this shop, tables say 0.23"
        assert "40 seen" in in_words(constant)
        before = recorded().plan(spear).of("op2")
        for one in (exponent, constant):
            keep_constant(one)
        moved = job_with_shop_values(spear)
        after = recorded().plan(moved).of("op2")
        assert before is not None
        assert after is not None
        assert after.figures.vc_m_min < before.figures.vc_m_min  # type: ignore[operator]
        assert "from 40 edges of this shop, tables say" in after.reasons[Figure.LIFE].source
        same = recorded().plan(spear).of("op2")  # a plan keeps what it was made with
        assert same is not None
        assert same.figures.vc_m_min == before.figures.vc_m_min
        again = {(one.kind, one.cutting): one for one in constants_of(store, library().materials["1.4404"], "x")}
        assert again["exponent", "coated carbide"].used
        for one in (exponent, constant):
            forget_constant(one)
        assert library().materials["1.4404"] == material
        left = {(one.kind, one.cutting): one for one in constants_of(store, material, "x")}
        assert not left["exponent", "coated carbide"].used

    def test_measured_power_moves_the_specific_force_and_says_so(self, store: Store, book: Book, spear: Job) -> None:
        for n in range(12):
            ratio = 1.15 + 0.02 * (n % 3 - 1)
            store.add(book.run.id, Observation(kind="power", of="1.4404", computed=3.0, found=3.0 * ratio, at=DAY))
            store.add(book.run.id, Observation(kind="force", of="1.4404", computed=3.0, found=3.0 * ratio, at=DAY))
        material = library().materials["1.4404"]
        found = next(one for one in constants_of(store, material, "x") if one.kind == "force")
        assert found.learned.value == pytest.approx(1.15, abs=found.learned.spread)
        keep_constant(found)
        moved = job_with_shop_values(spear)
        assert moved.stock.material.kc11_n_mm2 == pytest.approx(material.kc11_n_mm2 * found.learned.value, rel=1e-4)
        planned = recorded().plan(moved).of("op2")
        assert planned is not None
        assert "of this shop" in planned.reasons[Figure.FORCE].source
        forget_constant(found)

    def test_a_finish_worse_than_theory_slows_the_next_finishing_pass_and_says_so(
        self, store: Store, book: Book, spear: Job
    ) -> None:
        for n in range(20):
            store.add(
                book.run.id, Observation(kind="ra", of="1.4404", computed=0.8, found=1.5 + 0.04 * (n % 3), at=DAY)
            )
        material = library().materials["1.4404"]
        found = next(one for one in constants_of(store, material, "x") if one.kind == "ra")
        assert found.learned.value > 1.7
        keep_constant(found)
        moved = job_with_shop_values(spear)
        assert moved.stock.material.finish_ratio == pytest.approx(found.learned.value, rel=1e-3)
        before, after = recorded().plan(spear), recorded().plan(moved)
        slower = 0
        for was, now in zip(before.operations, after.operations, strict=True):
            if Figure.ROUGHNESS in was.reasons and Figure.ROUGHNESS in now.reasons:
                told = now.reasons[Figure.ROUGHNESS]
                assert "20 observations of this shop" in told.source
                assert told.number == pytest.approx(
                    found.learned.value * 1000 * now.figures.feed_mm_rev**2 / (32 * told.inputs[1].number), rel=0.01
                )
                slower += now.figures.feed_mm_rev < was.figures.feed_mm_rev
        assert slower
        forget_constant(found)
        assert library().materials["1.4404"] == material

    def test_a_piece_that_gives_way_more_counts_as_less_stiff(self, store: Store, book: Book) -> None:
        for n in range(12):
            store.add(
                book.run.id, Observation(kind="bend", of="1.4404", computed=1.0, found=1.5 + 0.02 * (n % 3), at=DAY)
            )
        material = library().materials["1.4404"]
        found = next(one for one in constants_of(store, material, "x") if one.kind == "bend")
        keep_constant(found)
        moved = library().materials["1.4404"]
        assert moved.e_n_mm2 == pytest.approx(material.e_n_mm2 / found.learned.value, rel=1e-3)
        assert "of this shop" in moved.source_of("e_n_mm2")
        assert counted("bend", moved) == pytest.approx(found.learned.value, rel=1e-3)
        forget_constant(found)

    def test_what_is_found_is_held_against_tables_and_not_against_an_earlier_answer(self, store: Store) -> None:
        material = library().materials["1.4404"]
        assert {counted(kind, material) for kind in ("force", "ra", "bend", "time")} == {1.0}
        moved = material.changed(kc11_n_mm2=1.2 * material.kc11_n_mm2, finish_ratio=1.5)
        assert counted("force", moved) == pytest.approx(1.2)
        assert counted("ra", moved) == pytest.approx(1.5)


def test_without_limits_nothing_is_within_and_a_size_is_above_nothing(book: Book) -> None:
    free = next(one for one in book.lines if one.quantity in ("diameter", "length") and one.lower is one.upper is None)
    book.enter(1, free.key, (free.nominal or 1.0) + 0.02, DAY)
    (row,) = [one for one in book.article(1).rows if one.line.key == free.key and one.found is not None]
    assert row.within is None
    for wrong in (0.0, -5.0, float("nan")):
        with pytest.raises(ToreumaError, match="no size"):
            book.enter(1, free.key, wrong, DAY)


def test_the_next_time_begins_from_the_last(book: Book, store: Store, spear: Job) -> None:
    assert taught(store, demo_job("sheave")).run is None
    for part in range(1, 4):
        store.add(book.run.id, PartMade(number=part, at=DAY + part, seconds=150.0))
    store.add(book.run.id, OffsetSet(after_part=1, tool="T2", axis="X", mm=-0.012, at=DAY))
    store.add(book.run.id, OffsetSet(after_part=3, tool="T2", axis="X", mm=0.002, at=DAY))
    store.add(book.run.id, Stop(part=2, operation="Rough outside", kind="bird's nest", at=DAY, note="long chips"))
    book.change_edge("T1", 3, DAY)
    store.note(book.run.ident, Note(words="warm it up first", at=DAY))
    sent = store.programs_of(book.run.id)
    changed = sent[0][1].replace("F0.275", "F0.25", 1)
    store.note(book.run.ident, Note(words=changed, at=DAY, kind="program", run=book.run.id))
    found = taught(store, spear)
    told = "\n".join(found.says)
    planned = book.sides[0].times.total_s
    assert f"3 of 1 parts, 150 s a part against {planned:.0f} s planned" in told
    assert "T2: offset X was brought to -0.010 mm" in told
    assert "Rough outside at part 2: bird's nest, long chips" in told
    assert "T1: an edge made 3 parts" in told
    assert "noted: warm it up first" in told
    assert found.edited
    assert any("feed" in one.lower() for one in found.edited)
    assert "the job has changed since then" in "\n".join(taught(store, spear.changed(revision="B")).says)


@pytest.mark.parametrize(
    ("kind", "field"),
    [("bird's nest", "feed_mm_rev"), ("chatter", "vc_m_min"), ("burr", "feed_mm_rev"), ("torn surface", "vc_m_min")],
)
def test_chips_and_chatter_bring_cures_of_the_plan(kind: str, field: str, book: Book, spear: Job) -> None:
    found = remedies(book.sides, kind, "Rough outside")
    assert found is not None
    now = getattr(book.sides[0].of("op2").figures, field)  # type: ignore[union-attr]
    pinned = [getattr(cure.apply(spear).operation("op2").pins, field) for cure in found.cures]  # type: ignore[union-attr]
    assert any(one is not None and one != now for one in pinned)


def test_what_no_number_answers_brings_no_cure(book: Book) -> None:
    assert remedies(book.sides, "bar end", "Rough outside") is None
    assert remedies(book.sides, "chatter", "nothing of ours") is None


def test_what_is_read_at_the_machine_is_held_against_what_was_computed(book: Book, store: Store) -> None:
    planned = book.sides[0].of("op2")
    assert planned is not None
    assert planned.figures.power_kw is not None
    book.observe_power("op2", 6.0, DAY)
    (power,) = store.observations("force", "1.4404")
    assert power.computed == planned.figures.power_kw
    assert power.found == pytest.approx(6.0 * book.job.machine.efficiency)
    with pytest.raises(ToreumaError, match="no operation 'op99'"):
        book.observe_power("op99", 6.0, DAY)
    book.enter(1, "outside 2 ra", 1.1, DAY)
    (finish,) = store.observations("ra", "1.4404")
    assert finish.found == 1.1
    assert finish.computed == pytest.approx(book.sides[0].of("op4").reasons[Figure.ROUGHNESS].number)  # type: ignore[union-attr]


def test_a_run_that_is_over_tells_of_time_and_warming_up(book: Book, store: Store) -> None:
    rng = np.random.default_rng(8)
    line = next(one for one in book.lines if one.key == "outside 2 d")
    assert line.aim is not None
    for part in range(1, 61):
        store.add(book.run.id, PartMade(number=part, at=DAY + 150 * part, seconds=150.0))
        warm = 0.014 * (1 - np.exp(-150 * part / 1500))
        book.enter(part, line.key, line.aim + warm + rng.normal(0, 0.0004), DAY + 150 * part, uncertainty=0.0008)
    book.end(DAY + 9000)
    (spent,) = store.observations("time", book.run.machine)
    assert spent.found == 150.0
    assert spent.computed == book.run.planned_s
    (warm_up,) = store.observations("warm-up", book.run.machine)
    assert 600 < warm_up.found < 3600
    assert store.run(book.run.id).ended == DAY + 9000
