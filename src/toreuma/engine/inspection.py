"""The inspection list of a job, with the standards that ship."""

from toreuma.core.measure import Characteristic, characteristics_of
from toreuma.core.measure.listing import Standards
from toreuma.core.model import Part
from toreuma.shipped.library import known_threads
from toreuma.shipped.standards import gauge_tables, general_tables

__all__ = ["inspection_list"]


def inspection_list(part: Part) -> tuple[Characteristic, ...]:
    """Everything of the drawing that is measured. Raises `PartError` for a part that cannot be."""
    return characteristics_of(
        part, Standards(threads=known_threads(part), general=general_tables(), gauges=gauge_tables())
    )
