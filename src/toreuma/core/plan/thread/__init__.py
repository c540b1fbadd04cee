"""Threads cut in step with the spindle."""
