"""Grooves and parting off."""
