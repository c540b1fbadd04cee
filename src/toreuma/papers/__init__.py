"""Sheets for the machine, the rack and the bench: what they say, how they are drawn, and the pages they become."""
