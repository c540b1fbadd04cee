"""How the tables of the log became what they are, step by step."""
