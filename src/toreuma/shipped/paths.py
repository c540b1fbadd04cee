"""Where the data that ships with Toreuma lies."""

import json
from importlib.resources import files
from pathlib import Path
from typing import Any

__all__ = ["data_path", "shipped_json"]


def data_path(*parts: str) -> Path:
    """A file or folder of the shipped data."""
    return Path(str(files("toreuma"))).joinpath("data", *parts)


def shipped_json(*parts: str) -> Any:
    """What a shipped file says."""
    return json.loads(data_path(*parts).read_text("utf-8"))
