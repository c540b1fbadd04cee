"""Rows, columns, texts and numbers that panels are made of."""
