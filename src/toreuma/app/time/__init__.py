"""Ribbons of time and what plays along them."""
