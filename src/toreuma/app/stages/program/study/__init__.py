"""A program that nobody planned, or one changed by hand: its text, the picture beside it, and what is known of it."""
