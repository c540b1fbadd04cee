"""A cylinder with limits that neither hold leaves free is cut in both, and the state says so."""

from tests.engine.test_held_well import job_of
from toreuma.core.model.transfer import TurnRound
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole


def verdict_of(line: str, runout_um: float = 20.0):  # type: ignore[no-untyped-def]
    engine = Engine()
    found = engine.route(job_of(line).changed(turn_round=TurnRound(runout_um=runout_um)))
    return prove_whole(engine.sides(found.job), engine.language(found.job)).verdict


def test_a_disc_that_is_gripped_on_its_limited_rim_is_told_with_the_runout() -> None:
    verdict = verdict_of("90 h8 x 24 c1 both; bore 70 H8 through c1 both", runout_um=30.0)
    assert verdict.state == "finished but for"
    (both,) = [row for row in verdict.rows if row.in_both_holds]
    assert both.what.startswith("Ø 89.97")
    assert "15 µm" in str(both.left)
    assert "both holds" in verdict.words


def test_one_without_limits_or_cut_in_one_hold_is_not() -> None:
    assert not any(row.in_both_holds for row in verdict_of("90 h11 x 24 c1 both; bore 70 H8 through c1 both").rows)
    assert not any(row.in_both_holds for row in verdict_of("90 x 24 c1 both; bore 70 H8 through c1 both").rows)
    assert not any(row.in_both_holds for row in verdict_of("30 h7 x 20 c1 both; hole M6 x 10 back").rows)
