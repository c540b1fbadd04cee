"""Changes of the hold that mend what it stands in the way of."""

from toreuma.core.findings import Cure
from toreuma.core.model import Job
from toreuma.core.spoken import q, said

__all__ = ["stick_out_more"]


def stick_out_more(more_mm: float) -> Cure:
    """Hold the bar farther out."""

    def apply(job: Job) -> Job:
        hold = job.setup.hold
        return job.with_setup(hold=hold.changed(stick_out_mm=round(hold.stick_out_mm + more_mm, 3)))

    return Cure(said("Stick the bar out {} more", q(more_mm, "mm", "g")), apply)
