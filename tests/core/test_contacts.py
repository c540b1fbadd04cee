"""What runs into what: every contact on its line, tools that come in, and tools that stand beside the one that cuts."""

import pytest

from tests.core.test_milled import drilled
from tests.support.kept import plan, prove_plan
from toreuma.core.findings import Finding
from toreuma.core.geometry.tool_shapes import COLLET_MM
from toreuma.core.model import Job
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.reach.beside import carrier_body, low_beside
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.shipped.library import demo_job, dialect

LANGUAGE = dialect("system-a")


def contacts(proof: Proof) -> list[Finding]:
    return [one for one in proof.findings if one.code == "contact"]


def test_every_contact_has_its_own_line_and_place(spear: Job) -> None:
    """All cuts of roughing as rapids: each one is told, not the worst of them."""
    text = post(plan(spear), LANGUAGE).text
    begin = text.index("ROUGH OUTSIDE")
    end = text.index("(OP 3", begin)
    spoiled = text[:begin] + text[begin:end].replace("G1 ", "G0 ") + text[end:]
    found = contacts(prove_plan(plan(spear), LANGUAGE, spoiled))
    lines = [one.line for one in found]
    assert len(found) > 5
    assert len({(one.line, one.what) for one in found}) == len(found)
    assert lines == sorted(lines, key=lambda line: line or 0)
    assert all(one.at is not None and f"line {one.line}" in one.what for one in found)


def test_a_tool_comes_in_only_where_it_has_room(spear: Job) -> None:
    """The blade is called while the turret still stands at the end of the thread: it swings into the bar."""
    planned = plan(spear)
    lines = post(planned, LANGUAGE).text.splitlines()
    assert not [one for one in contacts(prove_plan(planned, LANGUAGE, "\n".join(lines))) if "tool change" in one.what]
    call = next(n for n, line in enumerate(lines) if "T03" in line)
    leave = max(n for n in range(call) if "G0 X" in lines[n])
    del lines[leave : leave + 2]
    found = contacts(prove_plan(planned, LANGUAGE, "\n".join(lines) + "\n"))
    assert any("tool change in metal" in one.what for one in found), [one.what for one in found]


@pytest.mark.long
def test_the_tool_beside_comes_down_with_the_one_that_cuts() -> None:
    """A boring bar in the next station would run along the jaws of the sheave's second side, where all of its bore is
    finished from there."""
    job = demo_job("sheave")
    first = job.setups[0]
    kept = tuple(one for one in first.operations if one.kind != "finish_bore")
    job = job.changed(setups=(first.changed(operations=kept), *job.setups[1:]))
    assert not [one for one in all_contacts(job) if "beside" in one.what]
    crowded = job.changed(tools=tuple(one.changed(station=4) if one.id == "T11" else one for one in job.tools))
    found = [one.what for one in all_contacts(crowded) if "beside" in one.what]
    assert any("T3, in jaws or chuck" in what for what in found)
    cure = next(
        one.cures[0] for side in Engine().sides(crowded) for one in side.findings if one.code.endswith("neighbour")
    )
    assert not [one for one in all_contacts(cure.apply(crowded)) if "beside" in one.what]


def all_contacts(job: Job) -> list[Finding]:
    engine = Engine()
    sides = engine.sides(job)
    whole = prove_whole(sides, engine.language(job))
    return [one for proof in whole.proofs for one in contacts(proof)]


def test_the_nose_of_a_milling_spindle_follows_its_tool() -> None:
    """Behind a drill it stands on the drill's axis, behind a mill across the work above it; unknown it is nowhere."""
    job = drilled()
    upper = next(one for one in job.machine.carriers if one.kind == "milling spindle").changed(nose_d_mm=90.0)
    drill = next(one for one in job.tools if one.id == "T14")
    body = carrier_body(upper, drill, -53.0, 32.0)
    front = -53.0 + drill.overall_length_mm + COLLET_MM
    assert body.bounds == pytest.approx((front, 0.0, front + 250, 32 + 45))
    assert low_beside(upper, drill, None, -53.0, 32.0) == pytest.approx(body.bounds[:2])
    mill = drill.changed(mount="radial")
    body = carrier_body(upper, mill, -10.0, 20.0)
    assert body.bounds[:3] == pytest.approx((-55.0, 20 + drill.overall_length_mm + COLLET_MM, 35.0))
    assert carrier_body(upper.changed(nose_d_mm=0.0), drill, -53.0, 32.0).is_empty


def test_what_carries_a_driven_tool_is_followed_too() -> None:
    """A nose far too thick for the room beside the chuck: every move of the mill that brings it there is told."""
    job = demo_job("runner-hub")
    assert not [one for one in all_contacts(job) if "milling spindle" in one.what]
    short = tuple(
        one.changed(stick_out_mm=6.0, overall_length_mm=10.0) if one.kind == "end_mill" else one for one in job.tools
    )
    wide = tuple(one.changed(nose_d_mm=500.0) if one.kind == "milling spindle" else one for one in job.machine.carriers)
    crowded = job.changed(tools=short, machine=job.machine.changed(carriers=wide))
    found = [one for one in all_contacts(crowded) if "the milling spindle in" in one.what]
    assert found
    assert all(one.line for one in found)


def test_the_plate_of_a_gang_follows_its_tool() -> None:
    """It begins where the shank ends: with a blade held too short it runs into the screw it parts off."""
    job = demo_job("bleed-screw")
    assert not [one for one in all_contacts(job) if "gang plate" in one.what]
    blade = next(one for one in job.tools if one.kind == "parting")
    short = blade.changed(blade=blade.blade.changed(functional_length_mm=2.0))
    carrier = job.machine.carrier_of(blade.station)
    assert carrier_body(carrier, short, -20.0, 0.0).bounds[:2] == pytest.approx((-20 + blade.blade.block_width_mm, 2.0))
    held = job.changed(tools=tuple(short if one is blade else one for one in job.tools))
    found = [one for one in all_contacts(held) if "the gang plate in metal" in one.what]
    assert found
    assert all(one.line for one in found)
