"""Job files: open JSON, saved so that nothing is ever lost half-written."""

import json
import os
import tempfile
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.kinds.registry import tags
from toreuma.core.model import FORMAT_VERSION, Feature, Hold, Job, Operation, Stock, Tool

__all__ = ["job_schema", "job_text", "load_job", "parse_job", "save_job", "validation_line", "write_atomically"]

MAX_BYTES = 20_000_000


def load_job(path: Path) -> Job:
    """Read a job file. Raises `JobError` that names the file and, where it can, the field."""
    where = path.name
    try:
        if path.stat().st_size > MAX_BYTES:
            raise JobError(where, f"the file is larger than {MAX_BYTES // 1_000_000} MB", "this is not a job file")
        text = path.read_text("utf-8")
    except FileNotFoundError:
        raise JobError(where, "there is no such file", "check the name, or start with demo:spear") from None
    except UnicodeDecodeError:
        raise JobError(where, "the file is not UTF-8 text", "choose a .toreuma job file") from None
    except OSError as error:
        raise JobError(where, f"the file cannot be read ({error.strerror})", "check the file's rights") from None
    return parse_job(text, where)


def parse_job(text: str, where: str = "job") -> Job:
    """Turn job text into a job. Raises `JobError`."""
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        what = f"the text breaks off or is no JSON at line {error.lineno}, column {error.colno}"
        raise JobError(where, what, f"open the copy saved before ({where}~) or mend that place") from None
    except RecursionError:
        raise JobError(where, "the text is nested too deep", "this is not a job file") from None
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
    return json.dumps(job.model_dump(mode="json", exclude_none=True), indent=2, ensure_ascii=False) + "\n"


def save_job(job: Job, path: Path) -> None:
    """Save a job atomically and keep the version before it beside it, with ``~`` after its name.

    Raises `JobError` and leaves the file as it was when it cannot be written.
    """
    try:
        if path.exists():
            write_atomically(path.with_name(path.name + "~"), path.read_text("utf-8", "replace"))
        write_atomically(path, job_text(job))
    except OSError as error:
        raise JobError(
            path.name, f"it cannot be saved ({error.strerror})", "save it in a folder you may write to"
        ) from None


def write_atomically(path: Path, text: str) -> None:
    """Write a file in full or not at all: to a new file beside it, flushed to disk, then renamed."""
    handle, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
    try:
        with os.fdopen(handle, "w", encoding="utf-8") as stream:
            stream.write(text)
            stream.flush()
            os.fsync(stream.fileno())
        os.chmod(name, 0o644)
        os.replace(name, path)
    except BaseException:
        Path(name).unlink(missing_ok=True)
        raise


def job_schema() -> dict[str, Any]:
    """The JSON Schema of job files."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Job.model_json_schema()}
