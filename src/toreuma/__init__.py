"""Planning, reasons and proof for turned parts."""

__version__ = "0.1.0"
