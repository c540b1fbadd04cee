"""What tests of the engine share: a log of their own, and the demo job that is run again and again."""

from collections.abc import Iterator
from pathlib import Path

import pytest

from toreuma.core.model import Job
from toreuma.engine.library import renew
from toreuma.log import Store, open_store
from toreuma.shipped.library import demo_job


@pytest.fixture
def store(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Store]:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    kept = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    yield kept
    kept.close()
    renew()


@pytest.fixture
def spear() -> Job:
    """The whole demo job."""
    return demo_job("spear")
