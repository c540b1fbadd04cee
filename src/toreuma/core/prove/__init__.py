"""Cuts what a program says out of the stock and compares what is left with the part."""

from toreuma.core.prove.proof import Contact, Proof, Step, prove

__all__ = ["Contact", "Proof", "Step", "prove"]
