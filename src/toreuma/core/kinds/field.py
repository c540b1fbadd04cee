"""A field a person may type or choose."""

from dataclasses import KW_ONLY, dataclass

__all__ = ["FEATURE_OF_PART", "TOOL_OF_JOB", "Field"]


@dataclass(frozen=True)
class Field:
    """A field by name, its label, its internal unit and what it is measured on; ``options`` are label and value of
    each choice where it is one. Its range is the model's."""

    name: str
    label: str
    unit: str
    measured_on: str = ""
    _: KW_ONLY
    empty: str = ""
    options: tuple[tuple[str, object], ...] = ()


FEATURE_OF_PART: tuple[tuple[str, object], ...] = (("feature", "feature"),)
"""Stands for the features of the part that the operation can cut."""

TOOL_OF_JOB: tuple[tuple[str, object], ...] = (("tool", "tool"),)
"""Stands for the tools of the job, and none."""
