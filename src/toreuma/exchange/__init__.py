"""Drawings and models, in and out."""
