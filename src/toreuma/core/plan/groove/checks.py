"""What can be wrong with a groove and the blade chosen for it."""

from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region
from toreuma.core.model import CutGroove
from toreuma.core.model.feature import FaceGroove
from toreuma.core.model.tool import Blade, GroovingTool
from toreuma.core.plan.ground.work import Work
from toreuma.core.spoken import q, said

__all__ = ["groove_findings"]

HAIR_MM = 1e-4
MOST_SLENDER = 9.0
"""Depth over width of a blade beyond which it runs out of line: typical."""


def groove_findings(work: Work, operation: CutGroove, void: Region, blade: Blade) -> tuple[Finding, ...]:
    """Depth against the blade, and the diameters a face blade can begin on."""
    found = []
    # A groove that ends at a shoulder runs a hair into it: that is none of its depth.
    z0, r0, z1, r1 = void.intersection(work.scene.shape.solid).buffer(-HAIR_MM).buffer(HAIR_MM).bounds
    feature = work.given.part.features[operation.feature]
    depth = z1 - z0 if isinstance(feature, FaceGroove) else r1 - r0
    place = ((z0 + z1) / 2, r0)
    if depth > blade.depth_mm + 1e-6:
        found.append(
            Finding(
                "error",
                "groove.deep",
                said("the groove is {} deep, the blade goes {}", q(depth), q(blade.depth_mm, "mm", "g")),
                "its block would run into the work: a longer blade",
                operation=operation.id,
                at=place,
            )
        )
    elif depth / blade.width_mm > MOST_SLENDER:
        found.append(
            Finding(
                "warning",
                "groove.slender",
                f"{depth / blade.width_mm:.1f} widths deep: a blade runs out of line beyond {MOST_SLENDER:g}",
                "a wider blade, or two steps",
                operation=operation.id,
                at=place,
            )
        )
    tool = work.tool
    if isinstance(feature, FaceGroove) and isinstance(tool, GroovingTool) and tool.first_cut_mm is not None:
        low, high = tool.first_cut_mm
        if not low <= feature.d_mm <= high:
            found.append(
                Finding(
                    "error",
                    "groove.ring",
                    said(
                        "the first cut is on Ø {}, the blade is curved for Ø {} to {}",
                        q(feature.d_mm, "mm", "g"),
                        q(low, "mm", "g", bare=True),
                        q(high, "mm", "g"),
                    ),
                    "its side would rub in the groove: a blade curved for this diameter",
                    operation=operation.id,
                    at=place,
                )
            )
    return tuple(found)
