"""What is copied from one job and pasted into another: operations with their tools, a feature, the hold.

Text of its own kind: ``{"toreuma": "clip", "operation": …, "tools": […]}``, so that it travels by the clipboard.
"""

import json
from typing import Any

from pydantic import TypeAdapter, ValidationError

from toreuma.core.errors import JobError
from toreuma.core.json_text import json_from
from toreuma.core.model import Feature, Hold, Job, Operation, Tool
from toreuma.core.plan.turret.stations import free_station, with_tool

__all__ = ["clip_of_feature", "clip_of_hold", "clip_of_operation", "is_clip", "pasted"]

OPERATION: TypeAdapter[Any] = TypeAdapter(Operation)
FEATURE: TypeAdapter[Any] = TypeAdapter(Feature)
HOLD: TypeAdapter[Any] = TypeAdapter(Hold)
TOOLS: TypeAdapter[Any] = TypeAdapter(tuple[Tool, ...])
MOST_CHARACTERS = 2_000_000


def _text(**parts: Any) -> str:
    dumped = {
        name: value.model_dump(mode="json", exclude_none=True) for name, value in parts.items() if name != "tools"
    }
    tools = [tool.model_dump(mode="json", exclude_none=True) for tool in parts.get("tools", ())]
    return json.dumps(
        {"toreuma": "clip", **dumped, **({"tools": tools} if tools else {})}, ensure_ascii=False, indent=1
    )


def clip_of_operation(job: Job, operation_id: str) -> str:
    """An operation with the tools it takes, and the feature it cuts. Raises `JobError`."""
    operation = job.operation(operation_id)
    if operation is None:
        raise JobError("copy", "no operation is selected", "select one in the route")
    tools = tuple(tool for tool in job.tools if tool.id in operation.tools)
    feature = getattr(operation, "feature", None)
    more = {"feature": job.part.features[feature]} if feature is not None and feature < len(job.part.features) else {}
    return _text(operation=operation, tools=tools, **more)


def clip_of_feature(job: Job, index: int) -> str:
    """A feature of the part."""
    return _text(feature=job.part.features[index])


def clip_of_hold(job: Job) -> str:
    """The hold with its stick-out."""
    return _text(hold=job.setup.hold)


def is_clip(text: str) -> bool:
    """Whether a text was copied here."""
    return len(text) < MOST_CHARACTERS and text.lstrip().startswith("{") and '"toreuma": "clip"' in text


def pasted(job: Job, text: str, after: str = "") -> Job:
    """The job with what a clip holds: an operation behind the one named ``after``, with its tools where the job has
    none that are the same; a feature; a hold in place of the one it has. Raises `JobError`."""
    if not is_clip(text):
        raise JobError(
            "paste", "nothing that was copied here is on the clipboard", "copy an operation, feature or hold"
        )
    try:
        data = json_from(text, "paste")
        if "operation" in data:
            return _with_operation(job, data, after)
        if "feature" in data:
            feature = FEATURE.validate_python(data["feature"])
            return job.changed(part=job.part.changed(features=(*job.part.features, feature)))
        return job.with_setup(hold=HOLD.validate_python(data["hold"]))
    except (ValueError, KeyError, RecursionError) as error:
        what = (
            "what is on the clipboard is broken" if not isinstance(error, ValidationError) else "it does not fit here"
        )
        raise JobError("paste", what, "copy it again") from None


def _with_operation(job: Job, data: dict[str, Any], after: str) -> Job:
    operation = OPERATION.validate_python(data["operation"])
    job, renamed = _with_tools(job, TOOLS.validate_python(data.get("tools", [])))
    changes: dict[str, Any] = {"id": job.free_operation_id()}
    for field in type(operation).model_fields:
        if field.endswith("tool") and getattr(operation, field) in renamed:
            changes[field] = renamed[getattr(operation, field)]
    if "feature" in data and hasattr(operation, "feature"):
        feature = FEATURE.validate_python(data["feature"])
        job, changes["feature"] = _with_feature(job, feature)
    ids = [one.id for one in job.operations]
    at = ids.index(after) + 1 if after in ids else len(ids)
    operations = (*job.operations[:at], operation.changed(**changes), *job.operations[at:])
    return job.with_setup(operations=operations)


def _with_feature(job: Job, feature: Any) -> tuple[Job, int]:
    """The job with the feature an operation cuts, and which one it is: the same, one of its kind, else a new one."""
    features = job.part.features
    same = [index for index, one in enumerate(features) if one == feature]
    alike = [index for index, one in enumerate(features) if one.kind == feature.kind]
    if same or alike:
        return job, (same or alike)[0]
    return job.changed(part=job.part.changed(features=(*features, feature))), len(features)


def _with_tools(job: Job, tools: tuple[Any, ...]) -> tuple[Job, dict[str, str]]:
    """The job with tools it lacks, each on a free station, and what each is called here."""
    renamed: dict[str, str] = {}
    for tool in tools:
        here = next((one for one in job.tools if one.changed(id=tool.id, station=tool.station) == tool), None)
        if here is not None:
            renamed[tool.id] = here.id
            continue
        station = free_station(job) or max((one.station for one in job.tools), default=0) + 1
        job, renamed[tool.id] = with_tool(job, tool, station)
    return job, renamed
