"""The section drawn to scale, and bodies in space."""
