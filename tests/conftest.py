"""Shared fixtures. Qt draws offscreen; hypothesis is seeded so that every run is the same."""

import gc
import os
import tempfile

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ["TOREUMA_HOME"] = tempfile.mkdtemp(prefix="toreuma-home-")

import pytest
from hypothesis import HealthCheck, settings

from tests.support.engine import recorded, remembered
from tests.support.kept import plan
from toreuma.core.dialect import Dialect
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.engine.library import renew
from toreuma.shipped.library import demo_job, dialect

EXAMPLES, ALL_EXAMPLES = 8, 25


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--all", action="store_true", help="also the long set: whole routes, random parts, solids")
    parser.addoption("--fresh", action="store_true", help="properties with seeds of their own in every run")


def pytest_configure(config: pytest.Config) -> None:
    """Properties are tried on few examples every day and on many in the long set, the same in every run."""
    settings.register_profile(
        "toreuma",
        deadline=None,
        derandomize=not config.getoption("fresh"),
        suppress_health_check=[HealthCheck.too_slow],
        max_examples=ALL_EXAMPLES if config.getoption("all") else EXAMPLES,
    )
    settings.load_profile("toreuma")
    gc.set_threshold(100_000, 50, 100)  # much is remembered, and would be looked through again and again


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """The long set stays out unless it is asked for."""
    if config.getoption("all"):
        return
    long = [one for one in items if one.get_closest_marker("long")]
    if long:
        config.hook.pytest_deselected(items=long)
        items[:] = [one for one in items if not one.get_closest_marker("long")]


def pytest_sessionfinish() -> None:
    """What is recorded is let go while the libraries that made it are still there."""
    remembered().clear()
    recorded.cache_clear()


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
