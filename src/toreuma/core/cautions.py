"""The usual cautions, one plain sentence each, told where they matter."""

from toreuma.core.model import Job

__all__ = ["ALWAYS", "HOLD_CAUTIONS", "cautions_for"]

ALWAYS = "Computed values: the machine's manual, the chuck's sheet, local rules and trained staff come first."

HOLD_CAUTIONS = (
    "Jaws fly outward as the speed rises, and the grip falls. Never go above the limit on the chuck's own plate.",
    "A bar that sticks out behind the spindle whips: keep it guarded, in a liner, or cut short.",
    "A centre supports the piece, it does not hold it.",
    ALWAYS,
)

FIRST_PART = "Run the first part in single block with the rapid turned down and a hand on the stop."
CHIPS = "Guards and doors shut. Chips are taken with a hook and the spindle stopped, never by hand, rag or air gun."
ALONE = "Unattended: fire watch, chip room and a stop on broken tools are the site's rules, not this sheet's."


def cautions_for(job: Job) -> tuple[str, ...]:
    """What to say on the sheets of one side of a job."""
    found = [FIRST_PART]
    if job.setup.hold.kind == "chuck":
        found.append(HOLD_CAUTIONS[0])
    if job.stock.length_mm is None and job.stock.kind != "free":
        found.append(HOLD_CAUTIONS[1])
    if job.setup.centre is not None:
        found.append(HOLD_CAUTIONS[2])
    found.append(CHIPS)
    if job.stock.material.caution:
        found.append(job.stock.material.caution)
    if not job.conditions.attended:
        found.append(ALONE)
    return (*found, ALWAYS)
