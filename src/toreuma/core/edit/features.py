"""A feature taken out of a part: operations that name the features behind it follow, those that cut it go with it."""

from typing import TypeVar

from toreuma.core.model import AsWritten, Job, Milling, Operation, WrittenThread

__all__ = ["without_feature"]

Named = TypeVar("Named", WrittenThread, Milling)


def without_feature(job: Job, index: int) -> Job:
    """The job without one of its part's features, on every side."""
    features = tuple(feature for i, feature in enumerate(job.part.features) if i != index)
    setups = tuple(
        setup.changed(operations=tuple(new for one in setup.operations if (new := _follows(one, index)) is not None))
        for setup in job.setups
    )
    return job.changed(part=job.part.changed(features=features), setups=setups)


def _follows(operation: Operation, gone: int) -> Operation | None:
    """The operation counting features anew; None for one that cuts what is gone."""
    if isinstance(operation, AsWritten):
        return operation.changed(threads=_counted(operation.threads, gone), milled=_counted(operation.milled, gone))
    cut = getattr(operation, "feature", None)
    if cut is None or cut < gone:
        return operation
    return None if cut == gone else operation.changed(feature=cut - 1)


def _counted(named: tuple[Named, ...], gone: int) -> tuple[Named, ...]:
    """What names features, counting them anew; without what names the one that is gone."""
    kept = (one for one in named if one.feature != gone)
    return tuple(one.changed(feature=one.feature - (one.feature > gone)) for one in kept)
