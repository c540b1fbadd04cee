"""Everyday parts from nothing to their proof, held against the drawing by the judge and against a plain estimate."""
