"""Holes on the axis: drilled, reamed, tapped."""
