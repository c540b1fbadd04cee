"""What every operation has, and what it says of the features it cuts."""

from collections.abc import Mapping
from typing import Self

from pydantic import Field

from toreuma.core.value import Identifier, Name, Positive, Value

__all__ = ["Milling", "OperationBase", "Pins", "ThreadForm"]


class Pins(Value):
    """Numbers the person fixed; what is not pinned is proposed."""

    vc_m_min: Positive | None = None
    feed_mm_rev: Positive | None = None
    ap_mm: Positive | None = Field(default=None, description="Largest depth per pass, on radius")
    clamp_rpm: Positive | None = None


class ThreadForm(Value):
    """The thread to be cut, as its standard gives it: diameters in mm, least and greatest."""

    designation: Name
    pitch_mm: Positive
    flank_deg: float = Field(ge=20, le=90, description="Between the flanks")
    pitch_d_mm: tuple[Positive, Positive] = Field(description="Limits of the pitch diameter; the middle is aimed at")
    crest_d_mm: tuple[Positive, Positive] = Field(
        description="Limits of the diameter the thread is cut into: major outside, minor in a bore"
    )
    depth_mm: Positive | None = Field(default=None, description="Depth of the standard's profile, on radius")
    starts: int = Field(default=1, ge=1, le=24)
    left_hand: bool = False
    taper: float = Field(default=0.0, ge=0, lt=0.5, description="Growth of the diameter along the length")
    gauge_mm: float = Field(default=0.0, ge=0, le=1e3, description="From its start to where its diameters hold")

    @property
    def lead_mm(self) -> float:
        return self.pitch_mm * self.starts


class Milling(Value):
    """Holes, flats or a slot of the part that moves of a driven tool cut, or whose edges they break.

    ``form`` is that of the holes' thread where a mill goes round in them."""

    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    edges_only: bool = False
    form: ThreadForm | None = None


class OperationBase(Value):
    id: Identifier
    name: Name = ""
    tool: Identifier
    enabled: bool = True
    pins: Pins = Pins()
    centre_back: bool = Field(default=False, description="Cut while the live centre is drawn back")

    @property
    def tools(self) -> tuple[str, ...]:
        """Every tool the operation takes, the first one first."""
        return (self.tool,)

    def with_tools(self, names: Mapping[str, str]) -> Self:
        """The same with other names of tools, where ``names`` has them."""
        fields = (one for one in type(self).model_fields if one == "tool" or one.endswith("_tool"))
        return self.changed(**{one: names[old] for one in fields if (old := getattr(self, one)) in names})

    @property
    def threads_cut(self) -> tuple[tuple[int, ThreadForm], ...]:
        """Threads its tool cuts in step with the spindle: which of the part's features, and in what form."""
        return ()

    @property
    def milling(self) -> tuple[Milling, ...]:
        """What driven tools do to features of the part."""
        return ()

    @property
    def features_cut(self) -> tuple[int, ...]:
        """Which of the part's features it cuts, by their places there."""
        own = getattr(self, "feature", None)
        named = (one.feature for one in self.milling if not one.edges_only)
        return tuple(dict.fromkeys((*(() if own is None else (own,)), *(i for i, _ in self.threads_cut), *named)))
