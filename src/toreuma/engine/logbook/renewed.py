"""A job as it would be made now: with what the shop has learned since of its material and its machine."""

from toreuma.core.model import Job
from toreuma.core.spoken import said
from toreuma.engine.library import library
from toreuma.files.own_machines import MACHINES
from toreuma.files.own_materials import MATERIALS, source_of, value_of

__all__ = ["OF_THE_LOG", "job_with_shop_values", "learned_since"]

OF_THE_LOG = "of this shop"
"""What the source of a value says that the log has moved."""

CALLED = {
    "kc11_n_mm2": "specific force",
    "finish_ratio": "finish over theory",
    "e_n_mm2": "Young's modulus",
    "exponent": "Taylor exponent",
    "rough_m_min": "roughing speed",
    "finish_m_min": "finishing speed",
    "part_off_m_min": "speed of parting off",
    "time_ratio": "real time over computed",
    "warm_up_min": "time constant of warming up, min",
}


def job_with_shop_values(job: Job) -> Job:
    """The job with its material, and what is learned of its machine, as the shop's library has them now; a job keeps
    what it was made with until then."""
    material, machine = library().materials.get(job.stock.material.name), library().machines.get(job.machine.name)
    if material is not None:
        job = job.changed(stock=job.stock.changed(material=material))
    if machine is not None:
        learned = {one: getattr(machine, one) for one in (*MACHINES.fields(machine), "sources")}
        job = job.changed(machine=job.machine.changed(**learned))
    return job


def learned_since(job: Job) -> list[str]:
    """Values the log has moved since a job was made, or moved then and not now, each in a sentence."""
    now = job_with_shop_values(job)
    found = []
    pairs = ((MATERIALS, job.stock.material, now.stock.material), (MACHINES, job.machine, now.machine))
    for layer, was, is_ in pairs:
        for field in layer.fields(is_):
            before, after = value_of(was, field), value_of(is_, field)
            if before != after and OF_THE_LOG in source_of(was, field) + source_of(is_, field):
                tool, _, bare = field.rpartition(".")
                name = CALLED.get(bare, bare.replace("_", " "))
                words = f"{name}, {tool}" if tool else name
                found.append(said("{}: {} now, {} in this job", words, _text(after), _text(before)))
    return found


def _text(value: float | None) -> str:
    return "not known" if value is None else f"{value:.4g}"
