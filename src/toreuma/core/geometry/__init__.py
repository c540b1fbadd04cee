"""Plane geometry of the half section: coordinates are (z, r) in mm, z along the spindle, r the radius."""
