"""The stage of the papers."""
