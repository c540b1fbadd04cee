"""Vector drawings for paper in the manner of ISO 128: wide and narrow lines, hatching, standard scales."""
