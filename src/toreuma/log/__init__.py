"""The log of a shop: what was run, measured, set, used up and seen; kept in a database that lasts."""

from toreuma.log.entries import EdgeUsed, JobKept, Measurement, Note, Observation, OffsetSet, PartMade, RunKept, Stop
from toreuma.log.store import Store, open_store, store_url

__all__ = [
    "EdgeUsed",
    "JobKept",
    "Measurement",
    "Note",
    "Observation",
    "OffsetSet",
    "PartMade",
    "RunKept",
    "Stop",
    "Store",
    "open_store",
    "store_url",
]
