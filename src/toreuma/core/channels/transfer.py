"""A planned hand-over as one value."""

from dataclasses import dataclass

from toreuma.core.channels.waits import Act, Laid, Wait
from toreuma.core.cutting.evidence import Evidence, Limit
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region
from toreuma.core.model.transfer import HandOver

__all__ = ["Transfer"]


@dataclass(frozen=True, kw_only=True)
class Transfer:
    """The planned hand-over, in places of the first side: the second hold round the part, and where it waits.

    ``gap_mm`` is what lies between the noses of both spindles while both hold the part; ``back_mm`` how far the second
    one stands back before and after. ``excess_mm`` is left in front of the second side's Z 0, ``datum_mm`` that zero in
    places of the first, ``fastest`` how fast both may turn. ``channels`` are the items of each channel, ``laid`` when
    they happen; ``reasons`` what a person reads about it.
    """

    settings: HandOver
    jaws: Region
    body: Region
    piece: Region
    jaw_face_z: float
    gap_mm: float
    back_mm: float
    channels: dict[int, tuple[Act | Wait, ...]]
    laid: Laid
    excess_mm: float
    datum_mm: float
    fastest: Limit
    reasons: dict[str, Evidence]
    findings: tuple[Finding, ...]

    @property
    def seconds(self) -> float:
        return self.laid.total_s
