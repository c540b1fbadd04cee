"""The tables of standards that ship."""

from functools import cache
from typing import Any

from toreuma.core.standards.codes import CodeTables
from toreuma.core.standards.fits import FitTables
from toreuma.core.standards.gauges import GaugeTables
from toreuma.core.standards.general import GeneralTables
from toreuma.core.standards.reliefs import ReliefTables
from toreuma.core.standards.threads import ThreadTables
from toreuma.core.units import System
from toreuma.shipped.paths import shipped_json

__all__ = [
    "bar_sizes_mm",
    "code_tables",
    "fit_tables",
    "gauge_tables",
    "general_tables",
    "relief_tables",
    "thread_tables",
]


@cache
def thread_tables() -> ThreadTables:
    """The thread standards' tables."""
    return ThreadTables.model_validate(_standard("threads"))


@cache
def code_tables() -> CodeTables:
    """Letters and sizes of insert, holder and bar designations."""
    return CodeTables.model_validate(_standard("codes"))


@cache
def general_tables() -> GeneralTables:
    """General tolerances."""
    return GeneralTables.model_validate(_standard("general"))


@cache
def gauge_tables() -> GaugeTables:
    """Means of measuring, the simplest first."""
    return GaugeTables.model_validate(_standard("gauges"))


@cache
def fit_tables() -> FitTables:
    """The tables of limits and fits."""
    return FitTables.model_validate(_standard("fits"))


@cache
def relief_tables() -> ReliefTables:
    """Sizes of undercuts and thread run-outs."""
    return ReliefTables.model_validate(_standard("reliefs"))


@cache
def bar_sizes_mm(system: System) -> tuple[float, ...]:
    """Usual bar diameters, mm, of the metric or the inch series."""
    scale = 25.4 if system == "inch" else 1.0
    return tuple(size * scale for size in _standard("bars")[system])


def _standard(name: str) -> Any:
    return shipped_json("standards", f"{name}.json")
