"""Edits of a part as a whole: turned, scaled, steps moved and copied."""
