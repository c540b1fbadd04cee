"""Where the person's own data is kept, apart from what ships."""

import os
from pathlib import Path

__all__ = ["home"]


def home() -> Path:
    """``TOREUMA_HOME``, else a folder among the person's other data."""
    own = os.environ.get("TOREUMA_HOME")
    return Path(own) if own else Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local/share") / "toreuma"
