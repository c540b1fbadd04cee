"""Where the window remembers what it was like; a file that cannot be read is set aside before it is written anew."""

import contextlib
import shutil
from pathlib import Path

from PySide6.QtCore import QSettings

from toreuma.files.aside import free_name

__all__ = ["opened_settings"]


def opened_settings(settings: QSettings) -> str:
    """Read the settings; tells in a line where the file was set aside because it could not be read."""
    settings.sync()
    settings.allKeys()
    if settings.status() != QSettings.Status.FormatError:
        return ""
    path = Path(settings.fileName())
    with contextlib.suppress(OSError):
        kept = free_name(path)
        shutil.copy2(path, kept)
        settings.clear()
        return f"{path.name}: the settings could not be read; they are kept as {kept.name}, and the usual ones are used"
    return f"{path.name}: the settings could not be read; the usual ones are used"
