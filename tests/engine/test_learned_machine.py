"""What a shop learns of its machines: real time and warming up go into plans, papers and the log, and out again."""

import pytest

from tests.support.engine import recorded
from tests.support.papers import dossier, words_of
from toreuma.core.model import Job, Machine
from toreuma.core.model.identity import fingerprint
from toreuma.core.plan.asked.cost import part_cost
from toreuma.core.plan.asked.part_time import part_time
from toreuma.engine.library import keep_entry, keep_value, library
from toreuma.engine.logbook.book import Book, begin_run, taught
from toreuma.engine.logbook.constants import Constant, constants_of, forget_constant, in_words, keep_constant
from toreuma.engine.logbook.renewed import job_with_shop_values, learned_since
from toreuma.files.own_machines import MACHINES
from toreuma.log import Observation, PartMade, Store
from toreuma.papers.sheets import SHEETS

DAY = 1_800_000_000.0


def seen(store: Store, job: Job, kind: str, computed: float, ratio: float, count: int = 10) -> Constant:
    run = begin_run(store, recorded(), job, DAY)
    for n in range(count):
        found = computed * ratio * (1 + 0.01 * (n % 3 - 1))
        store.add(run, Observation(kind=kind, of=job.machine.name, computed=computed, found=found, at=DAY + n))
    return learned(store, job, kind)


def learned(store: Store, job: Job, kind: str) -> Constant:
    known = constants_of(store, job.stock.material, job.machine.name)
    return next(one for one in known if one.kind == kind)


def test_parts_that_take_longer_make_the_next_plan_dearer_and_say_so(store: Store, spear: Job) -> None:
    found = seen(store, spear, "time", 143.0, 1.25)
    assert not found.used
    assert found.learned.count == 10
    assert found.learned.low < 1.25 < found.learned.high
    keep_constant(found)
    assert learned(store, spear, "time").used
    assert learned_since(spear) == [f"real time over computed: {found.learned.value:.4g} now, 1 in this job"]
    assert any("the shop has learned: real time" in one for one in taught(store, spear).says)
    moved = job_with_shop_values(spear)
    before, after = recorded().plan(spear), recorded().plan(moved)
    assert after.times == before.times  # what a block takes is not touched
    takes = part_time((after,))
    assert takes.number == pytest.approx(before.times.total_s * found.learned.value, rel=1e-3)
    assert "10 observations of this shop" in takes.source
    assert part_time((before,)).number == pytest.approx(before.times.total_s)
    rate = spear.conditions.machine_per_h / 3600
    dearer = part_cost(after).number - part_cost(before).number
    assert dearer == pytest.approx((takes.number - before.times.total_s) * rate)
    assert "of this shop" in part_cost(after).source
    run = begin_run(store, recorded(), moved, DAY)
    assert store.run(run).planned_s == pytest.approx(takes.number)
    card = "\n".join(words_of(SHEETS["run"](dossier(moved))[0]))
    assert "10 observations of this shop" in card
    forget_constant(found)
    assert library().machines == library().base_machines
    assert learned_since(spear) == []


def test_time_found_is_held_against_what_was_computed_and_not_against_an_earlier_answer(
    store: Store, spear: Job
) -> None:
    keep_constant(seen(store, spear, "time", 143.0, 1.25))
    book = Book(store, begin_run(store, recorded(), job_with_shop_values(spear), DAY), recorded())
    for part in range(1, 4):
        store.add(book.run.id, PartMade(number=part, at=DAY + part, seconds=1.25 * book.sides[0].times.total_s))
    book.end(DAY + 900)
    last = store.observations("time", spear.machine.name)[-1]
    assert last.found / last.computed == pytest.approx(1.25, rel=1e-3)


def test_a_machine_that_warms_up_slowly_is_watched_longer_and_its_drift_is_expected(store: Store, spear: Job) -> None:
    found = seen(store, spear, "warm-up", 1800.0, 1.5)
    assert (found.unit, found.learned.table) == ("min", 30.0)
    assert found.learned.low < 45.0 < found.learned.high
    assert "min (10 seen, tables 30)" in in_words(found)
    keep_constant(found)
    moved = job_with_shop_values(spear)
    assert moved.machine.warm_up_min == pytest.approx(found.learned.value, rel=1e-3)
    sheet = dossier(moved)
    card = "\n".join(words_of(SHEETS["run"](sheet)[0]))
    parts = -(-3 * 60 * moved.machine.warm_up_min // sheet.takes.number)
    assert f"measure every part up to part {parts:.0f}" in card
    assert "after a cold start" not in "\n".join(words_of(SHEETS["run"](dossier(spear))[0]))
    book = Book(store, begin_run(store, recorded(), moved, DAY), recorded())
    line = next(one for one in book.lines if one.quantity == "diameter" and one.tolerance is not None)
    for part in range(1, 7):
        book.enter(part, line.key, (line.aim or 0.0) + 0.001 * (part % 2), DAY + 150 * part)
    usual, alone = book.size(line.key).fit, book.size(line.key, as_usual=False).fit
    assert usual is not None
    assert alone is not None
    tau = 60 * found.learned.value
    assert abs(usual.tau_s - tau) < abs(alone.tau_s - tau)
    forget_constant(found)
    assert library().machines[spear.machine.name].warm_up_min is None


def test_a_machine_and_a_material_of_the_shops_own_learn_too(store: Store, spear: Job) -> None:
    own: Machine = spear.machine.changed(name="corner lathe")
    keep_entry("machine", own.name, own)
    keep_entry("material", "our bar", spear.stock.material.changed(name="our bar"))
    job = spear.changed(machine=own, stock=spear.stock.changed(material=library().materials["our bar"]))
    keep_constant(seen(store, job, "time", 100.0, 1.1))
    for n in range(6):
        store.add(1, Observation(kind="force", of="our bar", computed=1.0, found=1.2, at=DAY + n))
    keep_constant(learned(store, job, "force"))
    assert library().machines["corner lathe"].time_ratio == pytest.approx(1.1, abs=0.02)
    assert library().materials["our bar"].kc11_n_mm2 > 1.1 * spear.stock.material.kc11_n_mm2
    assert library().base_machines["corner lathe"] == own
    assert learned(store, job, "force").used
    # what is typed into the entry counts from then on, and other values stay learned
    keep_entry("machine", own.name, own.changed(time_ratio=1.3))
    assert library().machines["corner lathe"].time_ratio == 1.3
    assert not learned(store, job, "time").used
    keep_entry("material", "our bar", library().base_materials["our bar"].changed(mc=0.2))
    assert library().materials["our bar"].mc == 0.2
    assert library().materials["our bar"].kc11_n_mm2 > 1.1 * spear.stock.material.kc11_n_mm2
    forget_constant(learned(store, job, "force"))
    assert library().materials["our bar"].kc11_n_mm2 == spear.stock.material.kc11_n_mm2


def test_values_that_cannot_be_are_refused(store: Store, spear: Job) -> None:
    for name, field, value in (
        ("no such", "time_ratio", 1.1), (spear.machine.name, "max_rpm", 9000.0),
        (spear.machine.name, "time_ratio", 0.0), (spear.machine.name, "warm_up_min", -3.0),
    ):  # fmt: skip
        with pytest.raises(Exception, match=r"no such machine|has no value|cannot be"):
            keep_value(name, field, value, "guess", MACHINES)
    assert library().machines == library().base_machines


def test_a_fingerprint_follows_what_is_decided(spear: Job) -> None:
    assert fingerprint(spear) == fingerprint(Job.model_validate_json(spear.model_dump_json()))
    rest = spear.setup.operations[1:]
    for other in (
        spear.changed(name="another"),
        spear.changed(machine=spear.machine.changed(time_ratio=1.1)),
        spear.changed(setups=(spear.setup.changed(operations=rest), *spear.setups[1:])),
    ):
        assert fingerprint(other) != fingerprint(spear)
