"""``prove``: the program read back, cut, and held against the part."""

from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import DialectOption, JobArgument, JsonOption, print_json
from toreuma.commands.findings import print_findings
from toreuma.core.channels.balance import balance
from toreuma.core.channels.schedule import schedule
from toreuma.core.channels.transfer import Transfer
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.findings import Finding
from toreuma.core.plan import Plan
from toreuma.core.prove import Proof
from toreuma.core.verdict import TOLD_BY_ROWS, Verdict
from toreuma.engine import report
from toreuma.engine.engine import Engine
from toreuma.engine.further_parts import verdict_of_pair
from toreuma.engine.library import open_job
from toreuma.engine.pair import prove_channels, texts_of
from toreuma.files.reading import text_of

__all__ = ["register"]

MOST_BYTES = 50_000_000
SEARCH_S = 5.0
"""The proof looks this long for the shortest cycle."""


def register(app: typer.Typer) -> None:
    app.command("prove")(prove)


def prove(
    job: JobArgument,
    program: Annotated[Path | None, typer.Option("--program", help="Program text to prove instead")] = None,
    side: Annotated[int, typer.Option("--side", help="Side that other program text belongs to")] = 1,
    channel: Annotated[int, typer.Option("--channel", help="Channel that other program text belongs to")] = 0,
    dialect_name: DialectOption = None,
    as_json: JsonOption = False,
) -> None:
    """Read the program back, cut it out of the blank and compare with the part."""
    engine = Engine()
    sides = engine.sides(open_job(job), dialect=dialect_name)
    text = _program_text(program)
    if not 1 <= side <= len(sides):
        raise ProgramError("side", f"the job has {len(sides)} side(s)", "choose one of them")
    taken = engine.transfer(sides)
    if taken is not None and (text is None or channel):
        _prove_channels(sides, taken, engine.language(sides[0].job, dialect_name), text, channel, as_json)
        return
    whole = engine.prove_whole(sides, {} if text is None else {side - 1: text}, dialect_name)
    reports = []
    for planned, proof in zip(sides, whole.proofs, strict=True):
        findings = (*planned.all_findings, *proof.findings)
        data = report.proof_report(proof)
        data["findings"] = [finding.as_dict() for finding in findings]
        reports.append(data)
    verdict = whole.verdict
    if as_json:
        shown = report.all_sides(reports)
        print_json(report.with_verdict(verdict, shown) | ({"sides": reports} if len(reports) > 1 else {}))
    else:
        print(f"{sides[0].job.name}: {verdict.words}")
        for planned, proof in zip(sides, whole.proofs, strict=True):
            _print_proof(planned, proof, len(sides) > 1)
        _print_rows(verdict)
    if not verdict.finished:
        raise typer.Exit(1)


def _prove_channels(
    sides: tuple[Plan, ...], taken: Transfer, language: Dialect, text: str | None, channel: int, as_json: bool
) -> None:
    """Both channels run together, both sides cut, the hand-over looked at."""
    texts = texts_of(sides[0].job, sides, taken, language)
    if text is not None and channel not in texts:
        known = ", ".join(str(one) for one in texts)
        raise ProgramError("channel", f"the job has no channel {channel}", f"choose one of {known}")
    if text is not None:
        texts[channel] = text
    proof = prove_channels(sides[0].job, sides, taken, language, texts)
    verdict = verdict_of_pair(sides, taken, proof)
    planned = tuple(finding for side in sides for finding in side.all_findings)
    findings = (*planned, *taken.findings, *proof.findings)
    job = sides[0].job
    found = balance(job, sides, taken, SEARCH_S) if text is None else None
    cycle = report.cycle_report(proof, found, schedule(job, sides, taken).cycle_s) if found and found.slots else None
    if as_json:
        print_json(report.with_verdict(verdict, report.pair_report(proof, findings, cycle)))
    else:
        print(f"{job.name}, complete: {verdict.words}")
        print(f"  gouge {proof.gouge_um:.2f} µm, leftover {proof.leftover_um:.2f} µm beyond what the plan declares")
        contacts = len(proof.contacts)
        waits = ", ".join(f"channel {one} waits {seconds:.1f} s" for one, seconds in proof.ran.waited_s.items())
        print(f"  contacts {contacts}, time {proof.ran.seconds:.1f} s; {waits}")
        if cycle is not None:
            made = "steady cycle" if cycle["written"] else "steady cycle there could be"
            ran = f", {proof.cycle_s:.1f} s as read back" if proof.cycle_s else ""
            print(f"  {made} {cycle['planned_s']:.1f} s{ran}, {cycle['ratio']:.3f} of one after another "
                  f"({cycle['one_after_another_s']:.1f} s); no order is below {cycle['bound_s']:.1f} s")  # fmt: skip
        print_findings(_unsaid(findings))
        _print_rows(verdict)
    if not verdict.finished:
        raise typer.Exit(1)


def _print_proof(planned: Plan, proof: Proof, named: bool) -> None:
    if named:
        print(f"  {planned.job.name}:")
    print(f"  gouge {proof.gouge_um:.2f} µm, leftover {proof.leftover_um:.2f} µm beyond what the plan declares")
    print(f"  contacts {len(proof.contacts)}, time {proof.time_s:.1f} s")
    for made in proof.threads:
        low, high = made.limits_mm
        found = f"{made.pitch_d_mm:.3f} mm" if made.pitch_d_mm is not None else "none"
        print(f"  thread {made.designation}: pitch diameter {found}, limits {low:.3f} to {high:.3f} mm")
    print_findings(_unsaid((*planned.all_findings, *proof.findings)))


def _unsaid(findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Findings that no row of the whole part says better."""
    return tuple(finding for finding in findings if finding.code not in TOLD_BY_ROWS)


def _print_rows(verdict: Verdict) -> None:
    """What is not made, what would make it, and what may stay."""
    for finding in verdict.findings:
        print(f"  not finished: {finding.what}" + (f" ({finding.why})" if finding.why else ""))
    for row in verdict.but_for:
        print(f"  but for {row.what}: {row.left}")
    made = sum(row.state == "made" for row in verdict.rows)
    print(f"  {made} of {len(verdict.rows)} surfaces and features as drawn")


def _program_text(path: Path | None) -> str | None:
    if path is None:
        return None
    try:
        return text_of(path, MOST_BYTES)
    except FileNotFoundError:
        raise ProgramError(path.name, "there is no such file", "check the file's name") from None
