"""Planning, reasons and proof for turned parts."""

__version__ = "0.1.0"

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # systems here are small: its threads only wait, and take a processor
