"""The stage of the program."""
