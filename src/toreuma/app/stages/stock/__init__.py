"""The stage of the blank."""
