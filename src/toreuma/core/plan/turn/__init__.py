"""Facing, roughing and finishing, outside and in bores."""
