"""A PDF made in a process of its own: setting pages takes seconds, and can be given up at any moment."""

import base64
from typing import Any

from toreuma.core.memo import Check, never_cancel
from toreuma.exchange.apart import Limits, Progress, run_apart, serve
from toreuma.papers.pdf import pdf_of

__all__ = ["pdf_apart"]

LIMITS = Limits(wall_s=300.0, memory_mb=8_000, file_mb=50)
"""Fonts are laid down in files for the library that sets the type."""


def pdf_apart(page: str, check: Check = never_cancel) -> bytes:
    """The PDF of an HTML document of ours. Raises `ToreumaError`, and what ``check`` raises to stop, at once."""
    return base64.b64decode(run_apart(__name__, {"page": page, "where": "papers"}, "papers", LIMITS, check))


def _work(request: dict[str, Any], progress: Progress) -> str:
    return base64.b64encode(pdf_of(str(request["page"]))).decode()


if __name__ == "__main__":
    serve(_work)
