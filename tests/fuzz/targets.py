"""Everything that takes a file or a text from outside, each with sound examples to begin from."""

import csv
import io
import json
import os
import random
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from toreuma.core.edit.clip import clip_of_operation, pasted
from toreuma.core.errors import ToreumaError
from toreuma.core.line import read_line
from toreuma.core.memo import Memo
from toreuma.core.plan.route import plan
from toreuma.core.post import post
from toreuma.core.read import read
from toreuma.core.standards.codes.decode import decode
from toreuma.core.standards.threads import thread_of
from toreuma.core.units import parse
from toreuma.engine.engine import Engine
from toreuma.engine.follow import follow
from toreuma.engine.library import Library
from toreuma.engine.line import line_tables
from toreuma.exchange.exports import export_file
from toreuma.exchange.read_apart import read_part_apart
from toreuma.files.jobs import job_text, load_job
from toreuma.files.journal import Journal, State, left_behind
from toreuma.files.rack import COLUMNS, load_rack, read_rack, save_rack
from toreuma.files.shop import load_shop, read_entries
from toreuma.shipped.library import demo_job, demo_names, dialect, holds, machines, materials
from toreuma.shipped.standards import code_tables, thread_tables

from .mutate import ODD_NUMBERS, ODD_TEXTS, mutated, mutated_json

__all__ = ["TARGETS", "Target"]


@dataclass(frozen=True)
class Target:
    """``make`` gives a case for a chance, ``take`` reads it from a folder of its own; it may raise `ToreumaError` and
    nothing else. ``limit_s`` is how long it may take; ``weight`` how often it is tried."""

    make: Callable[[random.Random], bytes]
    take: Callable[[bytes, Path], None]
    limit_s: float = 5.0
    weight: int = 10


@cache
def _jobs() -> list[Any]:
    return [json.loads(job_text(demo_job(name))) for name in demo_names()]


@cache
def _exported(suffix: str) -> list[bytes]:
    import tempfile

    found = []
    with tempfile.TemporaryDirectory() as folder:
        for name in ("spear", "bleed-screw", "sheave"):
            path = Path(folder) / f"{name}.{suffix}"
            export_file(Engine().plan(demo_job(name)), path)
            found.append(path.read_bytes())
    return found


@cache
def _programs() -> list[bytes]:
    return [post(plan(demo_job(name)), dialect("system-a")).text.encode() for name in ("spear", "sheave")]


def _job(data: bytes, folder: Path) -> None:
    path = folder / "job.toreuma"
    path.write_bytes(data)
    job_text(load_job(path))


def _planned(data: bytes, folder: Path) -> None:
    path = folder / "job.toreuma"
    path.write_bytes(data)
    memo = Memo()
    follow(plan(load_job(path), memo), dialect("system-a"), memo)


def _dxf(data: bytes, folder: Path) -> None:
    path = folder / "drawing.dxf"
    path.write_bytes(data)
    read_part_apart(path)


def _step(data: bytes, folder: Path) -> None:
    path = folder / "model.step"
    path.write_bytes(data)
    read_part_apart(path)


def _program(data: bytes, folder: Path) -> None:
    read(data.decode("utf-8", "replace"), dialect("system-a"), (200.0, 150.0))


def _rack(data: bytes, folder: Path) -> None:
    path = folder / "rack.json"
    path.write_bytes(data)
    try:
        kept = load_rack(path)
    except ToreumaError:
        kept = ()
    save_rack(kept, path)
    list_ = folder / "list.csv"
    list_.write_bytes(data)
    read_rack(list_)


def _home(name: str) -> Callable[[bytes, Path], None]:
    def take(data: bytes, folder: Path) -> None:
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data)
        os.environ["TOREUMA_HOME"] = str(folder)
        library = Library()
        assert library.materials
        assert library.machines
        assert library.holds
        assert library.catalogue.tools
        load_shop()
        library.rack()
        read_entries(path)

    return take


def _journal(data: bytes, folder: Path) -> None:
    os.environ["TOREUMA_HOME"] = str(folder)
    (folder / "journal").mkdir(parents=True, exist_ok=True)
    (folder / "journal" / "left.log").write_bytes(data)
    left_behind()


@cache
def _journals() -> list[bytes]:
    import tempfile

    before = os.environ.get("TOREUMA_HOME", "")
    with tempfile.TemporaryDirectory() as folder:
        os.environ["TOREUMA_HOME"] = folder
        journal = Journal()
        for name in ("one", "two"):
            journal.put(State(demo_job("bleed-screw").changed(name=name)))
            journal.keep_now()
        path = journal.path
        assert path is not None
        found = path.read_bytes()
        journal.rest()
        journal.close()
    os.environ["TOREUMA_HOME"] = before
    return [found]


@cache
def _clips() -> list[bytes]:
    job = demo_job("spear")
    return [clip_of_operation(job, one.id).encode() for one in job.operations]


def _clip(data: bytes, folder: Path) -> None:
    job_text(pasted(demo_job("bleed-screw"), data.decode("utf-8", "surrogateescape")))


TEXTS = (
    "30 x 18 c1 / 44 x 27 r2 / 62 h7 x 15", "30>40 x 12; bore 16 through", "M24x2 x 20 relief", "6 x 6.6 on 50",
    "1 1/2in", "30-0.2", "2*(3+0.5)", "CNMG 120408", "PCLNL 2525M12", "M12x1.75-6g", "1/2-13 UNC-2A", "Tr20x4",
    "NPT 1/2", "42CrMo4", "4140", "316L", "g 3 x 24 at 12", "20 k6 x 26 relief F 0.6x0.3", "length 118",
)  # fmt: skip


def _text(data: bytes, folder: Path) -> None:
    text = data.decode("utf-8", "replace")
    units = "inch" if len(text) % 2 else "mm"
    said = []
    for take in (
        lambda: parse(text, "mm", units), lambda: decode(text, code_tables()), lambda: Library().material(text),
        lambda: thread_of(text, thread_tables()), lambda: read_line(text, units, line_tables()),
    ):  # fmt: skip
        try:
            take()
        except ToreumaError as error:
            said.append(str(error))
    assert not [line for line in said if "\n" in line or len(line) >= 1000]


def _of_bytes(sound: Callable[[], list[bytes]]) -> Callable[[random.Random], bytes]:
    return lambda chance: mutated(chance.choice(sound()), chance)


def _of_jobs(chance: random.Random) -> bytes:
    job = chance.choice(_jobs())
    return mutated(json.dumps(job).encode(), chance) if chance.random() < 0.3 else mutated_json(job, chance)


def _odd_job(chance: random.Random) -> bytes:
    """A job with one or two odd numbers that may well be loaded."""
    job = json.loads(json.dumps(chance.choice(_jobs())))
    numbers = [one for one in _numbers(job) if one[1] != "version"]
    for _ in range(chance.choice((1, 1, 2))):
        holder, key = chance.choice(numbers)
        holder[key] = chance.choice([one for one in ODD_NUMBERS if isinstance(one, int | float)])
    return json.dumps(job).encode()


def _numbers(data: Any) -> Any:
    for key, value in data.items() if isinstance(data, dict) else enumerate(data) if isinstance(data, list) else ():
        if isinstance(value, int | float) and not isinstance(value, bool):
            yield data, key
        else:
            yield from _numbers(value)


def _rows(chance: random.Random) -> bytes:
    rows = [{"code": "CNMG 120408", "edges_left": 3, "place": "A1", "price": 7.5}, {"code": "DCMT 11T304", "note": "x"}]
    if chance.random() < 0.5:
        return mutated_json(rows * 3, chance)
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS)
    writer.writeheader()
    writer.writerows(rows * 3)
    return mutated(out.getvalue().encode(), chance)


def _entry(kind: str, value: Any) -> Callable[[random.Random], bytes]:
    body = {"toreuma": kind, "format": 1, "name": "mine", "value": json.loads(value.model_dump_json(exclude_none=True))}
    return lambda chance: (
        mutated_json(body, chance) if chance.random() < 0.7 else mutated(json.dumps(body).encode(), chance)
    )


def _typed(chance: random.Random) -> bytes:
    text = chance.choice(TEXTS) if chance.random() < 0.8 else chance.choice(ODD_TEXTS)
    return mutated((text * chance.choice((1, 1, 1, 3, 400))).encode("utf-8", "surrogatepass"), chance)


TARGETS: dict[str, Target] = {
    "job": Target(_of_jobs, _job, weight=30),
    "plan": Target(_odd_job, _planned, limit_s=60.0, weight=3),
    "dxf": Target(_of_bytes(lambda: _exported("dxf")), _dxf, limit_s=100.0, weight=3),
    "step": Target(_of_bytes(lambda: _exported("step")), _step, limit_s=100.0, weight=2),
    "program": Target(_of_bytes(_programs), _program, weight=20),
    "rack": Target(_rows, _rack, weight=30),
    "machine": Target(_entry("machine", next(iter(machines().values()))), _home("shop/machines/mine.json")),
    "hold": Target(_entry("hold", holds()[0]), _home("shop/holds/mine.json")),
    "material": Target(_entry("material", materials()["C45"]), _home("shop/materials/mine.json")),
    "own values": Target(
        lambda chance: mutated_json({"C45": {"mc": {"value": 0.2, "source": "x"}}}, chance), _home("materials.json")
    ),
    "journal": Target(_of_bytes(_journals), _journal, weight=15),
    "clip": Target(_of_bytes(_clips), _clip, weight=10),
    "text": Target(_typed, _text, weight=60),
}
