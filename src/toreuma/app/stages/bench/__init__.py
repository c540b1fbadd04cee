"""The bench: answers that need no job."""
