"""The core computes: no screen, no files, no clock, no globals."""
