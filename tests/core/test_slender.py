"""Only a cone that rises slowly all along is no shoulder: a step near the end of a thread stays guarded."""

import pytest
import shapely

from toreuma.core.geometry.slender import rises_slowly
from toreuma.core.model import ThreadForm
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.prove.threads import thread_zone

FORM = ThreadForm(
    designation="M8", pitch_mm=1.25, flank_deg=60.0, pitch_d_mm=(7.042, 7.16), crest_d_mm=(7.76, 7.972), depth_mm=0.767
)
THREAD = ThreadFeature(designation="M8", from_z_mm=0.0, length_mm=12.0)


def part(*behind: tuple[float, float]) -> shapely.Polygon:
    """A thread's seat of Ø8, and an outline behind it."""
    return shapely.Polygon([(0, 0), (0, 4), (-12, 4), *behind, (-40, behind[-1][1]), (-40, 0)])


@pytest.mark.parametrize(
    ("behind", "slowly"),
    [
        (((-40, 5.4),), True),
        (((-12, 4), (-40, 4)), True),
        (((-12, 5), (-40, 5)), False),
        (((-14, 4), (-14, 5), (-40, 5)), False),  # under the line of a slender cone, and a step all the same
        (((-14, 4), (-15, 5), (-40, 5)), False),
    ],
)
def test_a_step_is_no_cone_however_far_behind(behind: tuple[tuple[float, float], ...], slowly: bool) -> None:
    assert rises_slowly(part(*behind), -12.0, 4.0, -1.0, 6.0) is slowly


def test_the_thread_may_run_out_into_the_cone_and_not_into_the_step() -> None:
    cone = part((-40, 5.4))
    step = part((-14, 4), (-14, 5), (-40, 5))
    above = shapely.box(-15, 4.02, -14.1, 4.9)
    assert thread_zone(THREAD, FORM, step).intersection(above).area == 0
    assert thread_zone(THREAD, FORM, cone).intersection(shapely.box(-15, 4.02, -14.1, 4.1)).area > 0
