"""What ships with Toreuma is whole: dialects, demo jobs, icons, theme."""

import json
import xml.etree.ElementTree as ElementTree

import pytest

from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError
from toreuma.core.meanings import NEEDED
from toreuma.engine.library import open_job
from toreuma.shipped.library import demo_job, demo_names, dialect, dialect_names
from toreuma.shipped.paths import data_path


@pytest.mark.parametrize("name", dialect_names())
def test_dialects_are_complete_and_say_where_they_come_from(name: str) -> None:
    language = dialect(name)
    assert language.id == name
    assert language.source
    assert set(language.codes) >= NEEDED
    assert len({code.upper() for code in language.codes.values()}) == len(language.codes)


def test_a_dialect_without_a_code_is_refused() -> None:
    data = json.loads(data_path("dialects", "system-a.json").read_text("utf-8"))
    del data["codes"]["clamp"]
    with pytest.raises(ValueError, match="no code for clamp"):
        Dialect.model_validate(data)
    with pytest.raises(ProgramError, match="no such dialect"):
        dialect("none")


@pytest.mark.parametrize("name", demo_names())
def test_demo_jobs_are_files_like_any_other(name: str) -> None:
    job = demo_job(name)
    assert job == open_job(f"demo:{name}")
    assert job.stock.material.source
    assert job.machine.name in {
        "gang lathe",
        "toolroom lathe",
        "slant-bed",
        "twin-spindle mill-turn",
        "twin-spindle bar lathe",
    }
    assert all(operation.name for operation in job.operations)


def test_an_unknown_demo_names_the_known_ones() -> None:
    with pytest.raises(JobError, match="spear"):
        demo_job("spoon")


@pytest.mark.parametrize("path", sorted(data_path("icons").glob("*.svg")), ids=lambda p: p.stem)
def test_icons_are_drawings_in_the_ink_of_the_theme(path) -> None:  # type: ignore[no-untyped-def]
    root = ElementTree.fromstring(path.read_text("utf-8"))
    assert root.tag.endswith("svg")
    assert root.get("viewBox") == "0 0 24 24"
    assert "currentColor" in path.read_text("utf-8")
