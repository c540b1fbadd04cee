"""The tables of the thread standards, as they stand in the data file."""

from toreuma.core.value import Value

__all__ = [
    "AcmeTables",
    "MetricTables",
    "NpsmTables",
    "NptTables",
    "PipeTables",
    "ThreadTables",
    "TrapezoidalTables",
    "UnifiedTables",
    "WhitworthTables",
    "by_pitch",
]

Row = dict[str, float]


class MetricTables(Value):
    """``pitch_um`` has the tolerances of the pitch diameter by side, step of diameters and pitch, ``crest_um`` those of
    major (outside) and minor (inside) diameter by pitch; each row by grade."""

    source: str
    coarse_pitch_mm: Row
    allowance_um: dict[str, Row]
    diameter_steps_mm: tuple[float, ...]
    grade_factors: dict[str, Row]
    pitch_um: dict[str, dict[str, dict[str, Row]]]
    crest_um: dict[str, dict[str, Row]]


class UnifiedTables(Value):
    source: str
    series: dict[str, Row]


class WhitworthTables(Value):
    """Threads per inch by size of each series."""

    source: str
    series: dict[str, Row]


class PipeSize(Value):
    per_inch: float
    major_mm: float
    pitch_tolerance_um: float
    minor_tolerance_um: float
    gauge_length_mm: float | None = None
    gauge_tolerance_mm: float | None = None
    useful_length_mm: float | None = None


class PipeTables(Value):
    source: str
    sizes: dict[str, PipeSize]


class NptSize(Value):
    per_inch: float
    outside_in: float
    hand_tight_in: float
    tap_drill_mm: float


class Dryseal(Value):
    """What is cut off of crest and root of an NPTF thread, least and most, in pitches."""

    crest: tuple[float, float]
    root: tuple[float, float]


class NptTables(Value):
    """``dryseal`` is by threads per inch."""

    source: str
    sizes: dict[str, NptSize]
    dryseal_source: str
    dryseal: dict[str, Dryseal]


class NpsmSize(Value):
    """Limits as printed: least and greatest diameter, inches."""

    per_inch: float
    major_external_in: tuple[float, float]
    pitch_external_in: tuple[float, float]
    minor_internal_in: tuple[float, float]
    pitch_internal_in: tuple[float, float]


class NpsmTables(Value):
    source: str
    sizes: dict[str, NpsmSize]


class TrapezoidalTables(Value):
    """``pitch_um`` has the tolerances of the pitch diameter by side, step of diameters, pitch and grade."""

    source: str
    clearance_mm: Row
    major_external_um: Row
    minor_internal_um: Row
    allowance_um: dict[str, Row]
    usual_pitch_mm: Row
    pitch_um: dict[str, dict[str, dict[str, Row]]]


class AcmeClass(Value):
    allowance: float
    diameter: float
    pitch: float


class AcmeCentre(Value):
    """Tolerance of the major diameters of a centralizing class, over the root of the diameter in inches."""

    external: float
    internal: float


class AcmeTables(Value):
    source: str
    classes: dict[str, AcmeClass]
    centralizing: dict[str, AcmeCentre]
    centralizing_allowance: float
    usual_per_inch: Row


class ThreadTables(Value):
    """One table per family; ``tap_drills_mm`` has the drills of ISO 2306 by thread without its class."""

    metric: MetricTables
    unified: UnifiedTables
    whitworth: WhitworthTables
    pipe: PipeTables
    npt: NptTables
    npsm: NpsmTables
    trapezoidal: TrapezoidalTables
    acme: AcmeTables
    tap_drills_mm: Row


def by_pitch(row: Row, pitch_mm: float) -> float | None:
    """The entry of a row keyed by pitch, None when the standard lists no such pitch."""
    return row.get(f"{pitch_mm:g}")
