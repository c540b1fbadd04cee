"""By what a job is known again: on paper, in the log, and by whoever reads its code with a camera."""

import hashlib
import re

from toreuma.core.model.job import Job
from toreuma.core.value import Value

__all__ = ["SHORT", "code_words", "fingerprint", "job_id", "revision_of"]

SHORT = 8
"""So many figures of a fingerprint are written; two jobs of a shop share them once in some thousand million."""


def job_id(job: Job) -> str:
    """The shop's number of a job, or its name in plain letters where it has none."""
    return job.number.strip() or re.sub(r"[^\w.-]+", "-", job.name.strip()).strip("-") or "job"


def fingerprint(job: Job) -> str:
    """What tells this state of a job from every other: it changes with whatever is decided in it, and not with what a
    later version can decide besides."""
    return hashlib.sha256(repr(_decided(job)).encode()).hexdigest()[:SHORT]


def _decided(value: object) -> object:
    """What of a value is not as it is when nobody says anything, with what kind of value it is."""
    if isinstance(value, Value):
        fields = type(value).model_fields
        said = ((name, getattr(value, name)) for name in sorted(fields))
        return type(value).__name__, [(name, _decided(one)) for name, one in said if one != fields[name].default]
    return [_decided(one) for one in value] if isinstance(value, tuple) else value


def revision_of(job: Job) -> str:
    """Revision and fingerprint, as a sheet says them."""
    return f"{job.revision.strip() or '-'} / {fingerprint(job)}"


def code_words(job: Job) -> str:
    """What the square code on a sheet holds: the job's id, its revision, its fingerprint."""
    return f"toreuma:{job_id(job)}:{job.revision.strip()}:{fingerprint(job)}"
