"""Cases that `./run test` leaves to `./run test --all`."""

from collections.abc import Iterable
from typing import Any

import pytest

__all__ = ["everyday"]


def everyday(cases: Iterable[Any], *kept: Any) -> list[Any]:
    """Cases of a test of which only those ``kept`` run every day. Raises `ValueError` for a kept one that is none."""
    every = list(cases)
    if missing := [one for one in kept if one not in every]:
        raise ValueError(f"no such case: {missing}")
    return [one if one in kept else _long(one) for one in every]


def _long(case: Any) -> Any:
    values = case if isinstance(case, tuple) else (case,)
    return pytest.param(*values, marks=pytest.mark.long)
