"""Planning, reasons and proof for turned parts."""

__version__ = "0.1.0"

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # for small systems its threads only take a processor
