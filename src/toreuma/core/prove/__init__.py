"""Cuts what a program says out of the stock and compares what is left with the part."""

from toreuma.core.prove.proof import Contact, MoveDone, Proof, prove

__all__ = ["Contact", "MoveDone", "Proof", "prove"]
