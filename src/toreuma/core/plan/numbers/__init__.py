"""Speeds, feeds, depths and passes with their reasons, shared by all kinds of cut."""
