"""Everything that goes out as a drawing or a model, by the ending of the file."""

from pathlib import Path

from toreuma.core.errors import JobError
from toreuma.core.geometry.region import Region
from toreuma.core.plan import Plan
from toreuma.exchange.dxf_out import dxf_text
from toreuma.exchange.step_out import part_solid, region_solid, write_step
from toreuma.files.writing import write_atomically

__all__ = ["export_file"]


def export_file(plan: Plan, path: Path, stock: Region | None = None) -> None:
    """Write section and toolpaths as DXF, or the part as STEP; with ``stock``, that instead. Raises `JobError`."""
    suffix = path.suffix.lower()
    if suffix == ".dxf":
        try:
            write_atomically(path, dxf_text(plan))
        except OSError as error:
            raise JobError(path.name, f"it cannot be written ({error.strerror})", "choose another folder") from None
    elif suffix in (".step", ".stp"):
        write_step(region_solid(stock) if stock is not None else part_solid(plan.job.part), path)
    else:
        raise JobError(path.name, "only .dxf and .step can be written", "give the file one of these endings")
