"""Shared fixtures. Qt draws offscreen; hypothesis is seeded so that every run is the same."""

import os
import tempfile

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ["TOREUMA_HOME"] = tempfile.mkdtemp(prefix="toreuma-home-")

import pytest
from hypothesis import HealthCheck, settings

from toreuma.core.dialect import Dialect
from toreuma.core.model import Job
from toreuma.core.plan import Plan, plan
from toreuma.engine.library import renew
from toreuma.shipped.library import demo_job, dialect

settings.register_profile(
    "toreuma", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow], max_examples=25
)
settings.load_profile("toreuma")


@pytest.fixture(autouse=True)
def _own_values_read_again() -> None:
    """What a test before has kept in another home is forgotten."""
    renew()


@pytest.fixture(scope="session")
def spear() -> Job:
    """The regulating spear as a plain turned part: a round for its relief, no thread, no limits, grip unknown."""
    job = demo_job("spear")
    inner = {"kind": "round", "size_mm": 0.5}
    outside = tuple(
        element.changed(size=None, **({"corner": inner} if element.name == "Thread seat" else {}))
        for element in job.part.outside
    )
    chuck = job.setup.hold.changed(force_n=None, jaw_mass_kg=None, jaw_centre_r_mm=None)
    plain = tuple(op for op in job.operations if op.kind not in ("groove", "thread"))
    bare = job.changed(part=job.part.changed(outside=outside, features=()), tools=job.tools[:3])
    return bare.with_setup(hold=chuck, operations=plain)


@pytest.fixture(scope="session")
def language() -> Dialect:
    return dialect("system-a")


@pytest.fixture(scope="session")
def spear_plan(spear: Job) -> Plan:
    return plan(spear)
