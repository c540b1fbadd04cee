"""The base of every value in a job."""

from typing import Annotated, Any, Self

from pydantic import BaseModel, ConfigDict, Field

__all__ = ["Identifier", "Length", "Name", "Positive", "Share", "Value"]

Positive = Annotated[float, Field(gt=0, le=1e6)]
"""A number above zero."""

Length = Annotated[float, Field(ge=-1e5, le=1e5)]
"""A coordinate, mm."""

Share = Annotated[float, Field(gt=0, le=1)]
"""A share of something, above 0 up to 1."""

Name = Annotated[str, Field(max_length=120)]
Identifier = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_.-]+$")]


class Value(BaseModel):
    """Frozen, compared by content, and keeping keys it does not know so that they can be given back."""

    model_config = ConfigDict(frozen=True, extra="allow", allow_inf_nan=False, ser_json_inf_nan="null")

    def changed(self, **changes: Any) -> Self:
        """A copy with some fields changed, checked again. Raises pydantic's ValidationError."""
        fields = {name: getattr(self, name) for name in type(self).model_fields}
        return type(self).model_validate({**fields, **(self.__pydantic_extra__ or {}), **changes})
