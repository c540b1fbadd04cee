"""A feature taken out: nobody cuts another one in its place."""

import pytest

from toreuma.core.edit.features import without_feature
from toreuma.core.model import AsWritten, WrittenMove, WrittenThread
from toreuma.shipped.library import demo_job, demo_names


@pytest.mark.parametrize("name", demo_names())
def test_operations_cut_what_they_cut_before(name: str) -> None:
    job = demo_job(name)
    for gone in range(len(job.part.features)):
        left = without_feature(job, gone)
        for before, after in zip(job.setups, left.setups, strict=True):
            meant = {one.id: job.part.features[one.feature] for one in before.operations if hasattr(one, "feature")}
            kept = {one.id: left.part.features[one.feature] for one in after.operations if hasattr(one, "feature")}
            assert kept == {one: feature for one, feature in meant.items() if feature != job.part.features[gone]}
            others = [one for one in before.operations if not hasattr(one, "feature")]
            assert [one for one in after.operations if not hasattr(one, "feature")] == others


def test_threads_of_a_written_stretch_follow() -> None:
    job = demo_job("bleed-screw")
    form = next(one.form for one in job.operations if one.kind == "thread")
    threads = tuple(WrittenThread(feature=n, form=form) for n in range(2))
    kept = AsWritten(id="w", tool=job.tools[0].id, moves=(WrittenMove(z_mm=0, r_mm=50),), threads=threads)
    job = job.with_setup(operations=(kept,))
    (left,) = without_feature(job, 0).operations
    assert [one.feature for one in left.threads] == [0]  # type: ignore[union-attr]
