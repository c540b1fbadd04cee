"""Commands of the command line, by what they are about."""
