"""The stage of the log."""
