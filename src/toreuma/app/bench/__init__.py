"""The bench: tools for the head that need no job."""
