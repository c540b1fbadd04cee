"""Panels of the window."""
