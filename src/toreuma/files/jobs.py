"""Job files: open JSON, saved so that nothing is ever lost half-written."""

import contextlib
import hashlib
from collections.abc import Callable
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.json_text import json_from
from toreuma.core.kinds.registry import tags
from toreuma.core.model import FORMAT_VERSION, Feature, Hold, Job, Operation, Stock, Tool
from toreuma.files.reading import bytes_of
from toreuma.files.writing import write_atomically

__all__ = ["job_schema", "job_text", "load_job", "parse_job", "print_of", "read_job", "save_job", "validation_line"]

MAX_BYTES = 10_000_000
READ, TAKEN_APART = 0.05, 0.4
"""Shares of the time a large file takes: from the disk, and into values; the rest is their check."""


def load_job(path: Path) -> Job:
    """Read a job file. Raises `JobError` that names the file and, where it can, the field."""
    return read_job(path)[0]


def read_job(path: Path, progress: Callable[[float], None] = lambda share: None) -> tuple[Job, str]:
    """A job, and the print of the file it stands in; ``progress`` is told the share done. Raises `JobError`."""
    try:
        data = bytes_of(path, MAX_BYTES)
    except FileNotFoundError:
        raise JobError(path.name, "there is no such file", "check the name, or start with demo:spear") from None
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise JobError(path.name, "the file is not UTF-8 text", "choose a .toreuma job file") from None
    progress(READ)
    return parse_job(text, path.name, progress), _print(data)


def print_of(path: Path) -> str:
    """The print of a file as it lies there now; nothing where there is none that can be read."""
    try:
        return _print(bytes_of(path, MAX_BYTES))
    except (FileNotFoundError, JobError):
        return ""


def _print(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()


def parse_job(text: str, where: str = "job", progress: Callable[[float], None] = lambda share: None) -> Job:
    """Turn job text into a job. Raises `JobError`."""
    data = json_from(text, where)
    progress(TAKEN_APART)
    if not isinstance(data, dict) or "version" not in data:
        raise JobError(where, "there is no format version in it", "choose a .toreuma job file")
    version = data["version"]
    if isinstance(version, int) and version > FORMAT_VERSION:
        raise JobError(
            where,
            f"it was written by a newer Toreuma (format {version}, this one reads {FORMAT_VERSION})",
            "open it with that version",
        )
    try:
        return Job.model_validate(data)
    except ValidationError as error:
        place, what = validation_line(error)
        raise JobError(f"{where}: {place}" if place else where, what, "mend that value") from None
    except RecursionError:
        raise JobError(where, "the text is nested too deep", "this is not a job file") from None


UNION_TAGS = frozenset().union(*map(tags, (Tool, Operation, Feature, Stock, Hold)))
"""Steps of a field's path that name the kind of a value and not a field."""


def validation_line(error: ValidationError) -> tuple[str, str]:
    """Field and fault of the first thing wrong, in words."""
    first = error.errors(include_url=False)[0]
    place = ""
    before: int | str = ""
    for step in first["loc"]:
        is_tag = step in UNION_TAGS and (isinstance(before, int) or before in ("stock", "hold"))
        before = step
        if isinstance(step, int):
            place += f"[{step}]"
        elif not is_tag:
            place += f".{step}" if place else str(step)
    return place, _in_words(first)


def _in_words(error: Any) -> str:
    context, found = error.get("ctx", {}), error.get("input")
    shown = f", found {found!r:.40}" if isinstance(found, int | float | str) else ""
    kind = error["type"]
    words = {
        "missing": "this field is missing",
        "greater_than": f"must be greater than {context.get('gt')}{shown}",
        "greater_than_equal": f"must be {context.get('ge')} or more{shown}",
        "less_than_equal": f"must be {context.get('le')} or less{shown}",
        "finite_number": f"must be a finite number{shown}",
        "float_parsing": f"must be a number{shown}",
        "float_type": f"must be a number{shown}",
        "literal_error": f"must be {context.get('expected')}{shown}",
    }
    if kind in words:
        return words[kind]
    if kind == "value_error":
        return str(context.get("error", error["msg"]))
    return str(error["msg"][0].lower() + error["msg"][1:]) + shown


def job_text(job: Job) -> str:
    """A job as it is written to a file."""
    return job.model_dump_json(indent=2, exclude_none=True) + "\n"


def save_job(job: Job, path: Path) -> str:
    """Save a job and keep the version before it beside it, with ``~`` after its name; gives the print of the file.

    It is saved once the file has been read back and holds the same job. Raises `JobError` where that is not so; what
    was there before is then still there.
    """
    try:
        text = job_text(job)
        again = parse_job(text, path.name)
        if again != job and job_text(again) != text:
            raise JobError(path.name, "what would be written is not what stands here", "undo the last change")
        if len(text.encode()) > MAX_BYTES:
            raise JobError(path.name, f"it is larger than {MAX_BYTES // 1_000_000} MB", "take out what is not needed")
        if path.exists():
            with contextlib.suppress(PermissionError):  # a file may be writable in a folder that is not
                write_atomically(path.with_name(path.name + "~"), bytes_of(path, 10 * MAX_BYTES))
        write_atomically(path, text)
        if bytes_of(path, MAX_BYTES) != text.encode():
            raise JobError(path.name, "what was written was not read back", "save it on another disk")
    except OSError as error:
        raise JobError(
            path.name, f"it cannot be saved ({error.strerror})", "save it in a folder you may write to"
        ) from None
    except (ValueError, RecursionError) as error:
        what = f"it cannot be written ({type(error).__name__})"
        raise JobError(path.name, what, "take out the last text that was pasted") from None
    return _print(text.encode())


def job_schema() -> dict[str, Any]:
    """The JSON Schema of job files."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Job.model_json_schema()}
