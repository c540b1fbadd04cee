"""The stage of the part: its surfaces, features and sizes, and drawings read."""
