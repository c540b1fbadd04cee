"""The section canvas: half sections about the centre line, to scale."""
