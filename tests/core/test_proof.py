"""The proof: clean programs close, and every sabotage is caught with its line."""

import random
import re

import pytest

from tests.support.kept import plan, prove, prove_plan
from tests.support.parts import INSERTS, job_for, random_part
from toreuma.core.dialect import Dialect
from toreuma.core.errors import Cancelled, PartError
from toreuma.core.geometry.region import polygons, rotated_volume
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.read import read
from toreuma.shipped.library import demo_job, dialect


@pytest.fixture(scope="module")
def text(spear_plan: Plan, language: Dialect) -> str:
    return post(spear_plan, language).text


def prove_text(planned: Plan, text: str, language: Dialect) -> Proof:
    return prove(planned.job, planned.scene, read(text, language, planned.scene.reference), planned.declared)


def edited(text: str, pattern: str, replacement: str, after: str = "") -> tuple[str, int]:
    """Replace the first match behind ``after``; gives the text and the line that changed."""
    start = text.index(after) if after else 0
    match = re.compile(pattern).search(text, start)
    assert match is not None
    changed = text[: match.start()] + replacement + text[match.end() :]
    return changed, text.count("\n", 0, match.start()) + 1


def errors(proof: Proof) -> dict[str, list[int | None]]:
    found: dict[str, list[int | None]] = {}
    for finding in proof.findings:
        if finding.severity == "error":
            found.setdefault(finding.code, []).append(finding.line)
    return found


def test_the_demo_is_proved(spear_plan: Plan, text: str, language: Dialect) -> None:
    proof = prove_text(spear_plan, text, language)
    assert proof.ok
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    assert proof.contacts == ()
    assert proof.parted
    assert proof.final.symmetric_difference(spear_plan.scene.part).area < 0.02
    assert proof.time_s == pytest.approx(spear_plan.times.total_s, rel=0.01)


def test_removed_volume_is_what_the_stock_loses(spear_plan: Plan, text: str, language: Dialect) -> None:
    proof = prove_text(spear_plan, text, language)
    removed = sum(step.removed_mm2 for step in proof.steps)
    left = proof.final.area + proof.states[-1][1].area
    assert removed + left == pytest.approx(spear_plan.scene.stock.area, rel=1e-5)
    assert rotated_volume(proof.final) == pytest.approx(rotated_volume(spear_plan.scene.part), rel=1e-4)


def test_power_of_the_proof_agrees_with_the_plan(spear_plan: Plan, text: str, language: Dialect) -> None:
    proof = prove_text(spear_plan, text, language)
    rough = spear_plan.of("op2")
    assert rough is not None
    seen = max(s.power_kw for s, m in zip(proof.steps, proof.program.motions, strict=True) if m.section == 1)
    assert seen == pytest.approx(rough.reasons["power"].number, rel=0.15)


def test_a_wrong_x_is_a_gouge_on_its_line(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, line = edited(text, r"X24\. Z-55\.4 R0\.4", "X22. Z-55.4 R1.4", after="(OP 4")
    found = errors(prove_text(spear_plan, changed, language))
    assert line in found["gouge"]


def test_an_x_too_large_leaves_metal_and_names_the_nearest_cut(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, line = edited(text, r"X18\. Z", "X19. Z", after="(OP 4")
    proof = prove_text(spear_plan, changed, language)
    assert proof.leftover_um > 100
    lines = [n for n in errors(proof)["leftover"] if n is not None]
    assert any(abs(n - line) <= 2 for n in lines)


def test_a_rapid_through_the_bar_is_a_contact_on_its_line(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, line = edited(text, r"\nN\d+ G1 Z-67", "\nN1 G0 Z-67", after="(OP 2")
    proof = prove_text(spear_plan, changed, language)
    assert line + 1 in errors(proof)["contact"]
    assert any("rapid in metal" in contact.what for contact in proof.contacts)


def test_a_tool_driven_into_the_jaws_is_a_contact(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, line = edited(text, r"Z-79\.2", "Z-93.", after="(OP 4")
    proof = prove_text(spear_plan, changed, language)
    assert any("jaws" in c.what and c.line >= line for c in proof.contacts)


def test_a_feed_without_spindle_or_clamp_is_named(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, line = edited(text, r"G50 S4000", "M8", after="(OP 1")
    assert errors(prove_text(spear_plan, changed, language))["speed.no_clamp"][0] > line


def test_the_wrong_tool_is_seen(spear_plan: Plan, text: str, language: Dialect) -> None:
    changed, _ = edited(text, r"T0202", "T0101", after="(OP 4")
    assert not prove_text(spear_plan, changed, language).ok
    changed, _ = edited(text, r"T0202", "T0505", after="(OP 4")
    assert "tool.unknown" in errors(prove_text(spear_plan, changed, language))


def test_every_deleted_line_is_noticed_and_named(spear_plan: Plan, text: str, language: Dialect) -> None:
    """A sample of blocks is taken out one at a time: something is found every time, near the place."""
    lines = text.splitlines()
    blocks = [n for n, line in enumerate(lines) if line.startswith("N")][2:-1:12]
    silent, serious = [], 0
    for number in blocks:
        proof = prove_text(spear_plan, "\n".join(lines[:number] + lines[number + 1 :]) + "\n", language)
        noticed = [f for f in proof.findings if f.severity != "note" and f.line is not None]
        if not noticed:
            silent.append(lines[number])
        serious += not proof.ok
    assert not silent
    assert serious >= len(blocks) // 4


def test_a_deleted_cut_is_more_than_a_gap_in_the_numbers(spear_plan: Plan, text: str, language: Dialect) -> None:
    lines = text.splitlines()
    start = lines.index("(OP 4: FINISH OUTSIDE)")
    cuts = [n for n in range(start, len(lines)) if re.search(r"(G1|G2|G3) .*X|R0\.4", lines[n])][1:9]
    for number in cuts:
        proof = prove_text(spear_plan, "\n".join(lines[:number] + lines[number + 1 :]) + "\n", language)
        assert {"gouge", "leftover", "contact", "arc.radius"} & set(errors(proof)), lines[number]


def test_a_missing_finishing_cut_is_declared_not_hidden(spear: Job, language: Dialect) -> None:
    planned = plan(spear.with_setup(operations=tuple(o for o in spear.operations if o.id != "op4")))
    proof = prove_text(planned, post(planned, language).text, language)
    assert proof.leftover_um == 0
    assert proof.declared_um > 300
    assert "reach.left" in {f.code for f in proof.findings}


def test_a_collar_the_strong_insert_cannot_reach_behind_is_declared(spear: Job, language: Dialect) -> None:
    only_strong = spear.with_operation("op4", lambda o: o.changed(tool="T1")).with_operation(
        "op3", lambda o: o.changed(enabled=False)
    )
    planned = plan(only_strong)
    proof = prove_text(planned, post(planned, language).text, language)
    assert proof.contacts == ()
    assert proof.gouge_um < 2
    behind = [f for f in proof.findings if f.code == "reach.left"]
    assert behind
    assert behind[0].at is not None
    assert -55 < behind[0].at[0] < -36
    assert max(p.area for p in polygons(proof.declared)) > 10


@pytest.mark.parametrize("insert", sorted(INSERTS))
@pytest.mark.parametrize("seed", range(7))
def test_random_parts_close(insert: str, seed: int, language: Dialect) -> None:
    source = random.Random(1000 + seed)
    while True:
        try:
            job = job_for(random_part(source)[0], insert, ("mm", "inch")[seed % 2], ("R", "IK")[seed // 2 % 2])
            planned = plan(job)
            break
        except PartError:
            continue
    proof = prove_text(planned, post(planned, language).text, language)
    assert proof.ok, [f.what for f in proof.findings if f.severity == "error"]
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    kept = proof.states[-1][1].area + (proof.final.area if proof.parted else 0)
    fallen = planned.scene.stock.area - kept - sum(step.removed_mm2 for step in proof.steps)
    assert abs(fallen) < 1e-4 * planned.scene.stock.area  # volume is conserved: cut off, kept, or finished


def test_proving_can_be_stopped_and_tells_how_far_it_is(spear_plan: Plan, text: str, language: Dialect) -> None:
    shares: list[float] = []

    def check() -> None:
        if len(shares) > 3:
            raise Cancelled

    program = read(text, language, spear_plan.scene.reference)
    with pytest.raises(Cancelled):
        prove(spear_plan.job, spear_plan.scene, program, spear_plan.declared, check, shares.append, memo=None)
    assert shares == sorted(shares)


def test_every_cylinder_is_measured_against_its_limits() -> None:
    job = demo_job("spear")
    planned = plan(job)
    proof = prove_plan(planned, dialect("system-a"))
    sizes = {one.name: one for one in proof.sizes}
    guide = sizes["Guide"]
    assert guide.limits_mm == pytest.approx((21.959, 21.980))
    assert guide.ok
    assert guide.found_mm[1] == pytest.approx(21.9695, abs=0.0015)
    assert all(one.ok for one in proof.sizes if one.limits_mm)
    hub = prove_plan(plan(demo_job("runner-hub")), dialect("system-a"))
    bore = next(one for one in hub.sizes if one.side == "inside")
    assert bore.ok
    assert bore.limits_mm == pytest.approx((25.0, 25.021))


def test_a_size_cut_a_little_too_small_is_out() -> None:
    job = demo_job("spear")
    planned, language = plan(job), dialect("system-a")
    text = post(planned, language).text
    assert "X21.97" in text
    wrong = text.replace("X21.97 ", "X21.94 ").replace("X21.969", "X21.939").replace("X21.97\n", "X21.94\n")
    proof = prove_plan(planned, language, wrong)
    guide = next(one for one in proof.sizes if one.name == "Guide")
    assert not guide.ok
