"""Every single change of the demo programs through the proof: what is told, what slips through, what is told in vain.

./run bench mutate [JOB ...] [EVERY N-TH: 20]
"""

import random
import re
import sys
import time
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from difflib import SequenceMatcher
from functools import cached_property
from multiprocessing import Pool

from benchmarks.judge.bench import case_of, driven_case_of, mills_of
from benchmarks.judge.changes import Change, every_change, same_meaning
from benchmarks.judge.court import Case, Judged
from benchmarks.judge.driven import Driven, DrivenCase
from benchmarks.judge.machine import NotJudged, together
from toreuma.core.findings import Finding
from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.post import post
from toreuma.core.read import Program, read
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.further_parts import verdict_of_pair
from toreuma.engine.judging import prove_whole
from toreuma.engine.pair import prove_channels, references, texts_of
from toreuma.shipped.library import demo_job, demo_names

__all__ = ["Bench", "Outcome", "asked", "main"]


NUMBER = re.compile(r"^\s*N\d+\s*")

SLICES = 16
"""Each job is tried in so many slices, so that what slips through is printed while the rest still runs."""


@dataclass(frozen=True)
class Outcome:
    """``how``: told, warned, same (nothing moves otherwise), harmless or MISSED (by the judge's word), not judged."""

    job: str
    text_of: int
    change: Change
    how: str
    what: str = ""


@dataclass
class Bench:
    """A job with its programs, proved once as they are."""

    job: Job
    memo: Memo = field(default_factory=Memo)

    @cached_property
    def engine(self) -> Engine:
        return Engine(memo=self.memo)

    @cached_property
    def sides(self):  # type: ignore[no-untyped-def]
        return self.engine.sides(self.job)

    @cached_property
    def taken(self):  # type: ignore[no-untyped-def]
        return self.engine.transfer(self.sides)

    @cached_property
    def language(self):  # type: ignore[no-untyped-def]
        return self.engine.language(self.job)

    @cached_property
    def texts(self) -> dict[int, str]:
        """Programs by side, or by channel where both spindles work together."""
        if self.taken is not None:
            return texts_of(self.job, self.sides, self.taken, self.language)
        return {n: post(side, self.language).text for n, side in enumerate(self.sides)}

    @cached_property
    def base(self) -> tuple[set[object], set[object], set[object], str]:
        return told(*self.proved({}))

    @cached_property
    def case(self) -> tuple[Case, Judged]:
        """The judge's case, and what it says of the planned programs. Raises `NotJudged`."""
        case = case_of(self.sides)
        return case, self._judged(case, self.texts)

    @cached_property
    def driven(self) -> tuple[DrivenCase | None, dict[int, Driven]]:
        """The judge's places beside the axis, and what the planned programs of the first side do to them. Raises
        `NotJudged`."""
        case = driven_case_of(self.job)
        return case, {} if case is None else {n: self.driven_by(case, n, text) for n, text in self.texts.items()}

    def driven_by(self, case: DrivenCase, number: int, text: str) -> Driven:
        if self.taken is None and number > 0:
            return Driven()
        side = self.sides[0]
        home = references(side)[number] if self.taken is not None else side.scene.reference
        return case.judge(text, home, mills_of(side.job))

    def _judged(self, case: Case, texts: dict[int, str]) -> Judged:
        """Programs by side, or of channels that wait for each other. Raises `NotJudged`."""
        if self.taken is None:
            return case.judge(list(texts.values()))
        here, there = references(self.sides[0]), references(self.sides[-1])
        homes = {channel: (here[channel], there[channel]) for channel in texts}
        driven = frozenset(one.station for side in self.sides for one in side.job.tools if one.mount != "still")
        length = -float(self.sides[0].scene.profile.back_z)
        return case.follow(list(together(texts, homes, driven, length)))

    def proved(self, changed: dict[int, str]) -> tuple[Verdict, Sequence[Finding]]:
        if self.taken is not None:
            texts = {**self.texts, **changed}
            pair = prove_channels(self.job, self.sides, self.taken, self.language, texts, memo=self.memo)
            return verdict_of_pair(self.sides, self.taken, pair), pair.findings
        whole = prove_whole(self.sides, self.language, changed, memo=self.memo)
        return whole.verdict, [finding for proof in whole.proofs for finding in proof.findings]

    def tried(self, number: int, change: Change) -> Outcome:
        """A change put to the reader, then to the proof, and to the judge where nothing is told."""
        program = self.read(number, change.text)
        if read_errors := _errors(program) - self._read_errors[number]:
            return Outcome(self.job.name, number, change, "told", str(next(iter(read_errors))))
        errors, warnings, rows, state = told(*self.proved({number: change.text}))
        base = self.base
        found = [*(errors - base[0]), *(rows - base[2]), *([state] if state != base[3] else [])]
        if found:
            return Outcome(self.job.name, number, change, "told", str(found[0]))
        if warnings - base[1]:
            return Outcome(self.job.name, number, change, "warned", str(next(iter(warnings - base[1]))))
        if _moves(program) == self._moves[number]:
            return Outcome(self.job.name, number, change, "same")
        return self._by_judge(number, change)

    def read(self, number: int, text: str) -> Program:
        if self.taken is not None:
            here, there = self.sides[0].scene.reference, self.sides[-1].scene.reference
            return read(text, self.language, here, self.memo, second_reference=there)
        return read(text, self.language, self.sides[number].scene.reference, self.memo)

    @cached_property
    def _moves(self) -> dict[int, list[Motion]]:
        return {number: _moves(self.read(number, text)) for number, text in self.texts.items()}

    @cached_property
    def _read_errors(self) -> dict[int, set[object]]:
        return {number: _errors(self.read(number, text)) for number, text in self.texts.items()}

    def _by_judge(self, number: int, change: Change) -> Outcome:
        try:
            text = self._followed(number, change)
            case, clean = self.case
            court = self._judged(case, {**self.texts, number: text})
            beside, planned = self.driven
            harmful = court.harms(clean)
            if beside is not None:
                harmful |= self.driven_by(beside, number, text).worse_than(planned[number])
        except NotJudged as error:
            return Outcome(self.job.name, number, change, "not judged", str(error))
        return Outcome(self.job.name, number, change, "MISSED" if harmful else "harmless", str(court))

    def _followed(self, number: int, change: Change) -> str:
        """The changed program as the judge follows it, which makes the first part alone: what is changed in the program
        of the parts after it is changed where the first is made by the same lines. Raises `NotJudged` where there are
        none."""
        if "M98" in change.was:
            raise NotJudged("how many parts are made")
        lines = self.texts[number].splitlines()
        end = next((n for n, line in enumerate(lines, 1) if re.search(r"\bM30\b", line)), len(lines))
        if change.line <= end + 1:
            return change.text
        changed, more = change.text.splitlines(), len(change.text.splitlines()) - len(lines)
        first, after = ([NUMBER.sub("", one) for one in part] for part in (lines[:end], lines[end:]))
        for block in SequenceMatcher(None, first, after, autojunk=False).get_matching_blocks():
            if block.b <= change.line - 1 - end < block.b + block.size - 1:
                made = changed[end + block.b : end + block.b + block.size + more]
                return "\n".join([*lines[: block.a], *made, *lines[block.a + block.size :]]) + "\n"
        return self._in_its_section(lines, changed, change.line, end)

    def _in_its_section(self, lines: list[str], changed: list[str], line: int, end: int) -> str:
        """The same where sections of the later parts stand in another order. Raises `NotJudged`."""
        low, high = _section(lines, line - 1)
        wanted = [NUMBER.sub("", one) for one in lines[low:high]]
        for place in (n for n, one in enumerate(lines[:end]) if one.startswith("(OP")):
            if [NUMBER.sub("", one) for one in lines[place + 1 : place + 1 + high - low]] == wanted:
                made = changed[low : high + len(changed) - len(lines)]
                return "\n".join([*lines[: place + 1], *made, *lines[place + 1 + high - low :]]) + "\n"
        raise NotJudged("a part after the first")


def _section(lines: list[str], at: int) -> tuple[int, int]:
    """First line and the one behind the last of the section round a line: from behind its title to its optional stop.
    Raises `NotJudged`."""
    title = next((n for n in range(at, -1, -1) if lines[n].startswith("(OP")), None)
    stop = next((n for n in range(at, len(lines)) if re.search(r"\bM1\b", lines[n])), None)
    if title is None or stop is None or any(one.startswith("(OP") for one in lines[title + 1 : stop]):
        raise NotJudged("a part after the first")
    return title + 1, stop


def _moves(program: Program) -> list[Motion]:
    return [replace(one, line=0, section=0) for one in program.motions]


def _errors(program: Program) -> set[object]:
    """What reading alone tells: the proof passes every one of it on."""
    return {(one.code, one.what.split(": ", 1)[-1]) for one in program.findings if one.severity == "error"}


def told(verdict: Verdict, findings: Sequence[Finding]) -> tuple[set[object], set[object], set[object], str]:
    errors = {(one.code, one.what.split(": ", 1)[-1]) for one in verdict.dangers}
    warnings = {(one.code, one.what.split(": ", 1)[-1]) for one in findings if one.severity == "warning"}
    rows: set[object] = {
        (row.key, row.state, "" if row.state in ("made", "allowed") else row.left) for row in verdict.rows
    }
    return errors, warnings, rows, verdict.state


def _tried(asked: tuple[str, int, int]) -> list[Outcome]:
    name, every, part = asked
    bench = Bench(demo_job(name))
    found = []
    chance = random.Random(f"{name} {part}")
    for number, text in bench.texts.items():
        for change in every_change(text):
            if chance.random() * every < 1 and change.line % SLICES == part:
                found.append(bench.tried(number, change))
        for change in same_meaning(text):
            if chance.random() * every < 1 and change.line % SLICES == part:
                one = bench.tried(number, change)
                found.append(replace(one, how="IN VAIN" if one.how != "same" else "meant the same"))
    return found


def _each(asked: list[tuple[str, int, int]]) -> Iterator[Outcome]:
    with Pool(2) as pool:
        for found in pool.imap_unordered(_tried, asked):
            yield from found


def main(names: list[str], every: int = 20) -> None:
    """Print by kind how many are told and what slips through."""
    begun = time.monotonic()
    counts: dict[str, Counter[str]] = defaultdict(Counter)
    for one in _each([(name, every, part) for name in names or demo_names() for part in range(SLICES)]):
        counts[one.change.kind][one.how] += 1
        if (tried := sum(each.total() for each in counts.values())) % 1000 == 0:
            print(f"{time.monotonic() - begun:7.0f} s: {tried} tried", flush=True)
        if one.how not in ("told", "same", "meant the same"):
            print(f"{one.job} [{one.text_of}] {one.change.line}: {one.how}: {one.change.kind}: "
                  f"{one.change.was} -> {one.change.now} / {one.what[:160]}", flush=True)  # fmt: skip
    hows = sorted({how for each in counts.values() for how in each})
    print(f"{'':28}" + "".join(f"{how:>16}" for how in hows))
    for kind, each in sorted(counts.items()):
        print(f"{kind:28}" + "".join(f"{each[how] or '':>16}" for how in hows))
    total = sum(counts.values(), Counter())
    print(f"{'all':28}" + "".join(f"{total[how]:>16}" for how in hows))
    print(f"{time.monotonic() - begun:.0f} s")


def asked(arguments: list[str]) -> None:
    """The run that a command line asks for."""
    main([one for one in arguments if not one.isdigit()], *(int(one) for one in arguments if one.isdigit()))


if __name__ == "__main__":
    asked(sys.argv[1:])
