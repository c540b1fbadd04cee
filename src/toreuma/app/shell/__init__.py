"""The window that lays out the stages, and what starts it."""
