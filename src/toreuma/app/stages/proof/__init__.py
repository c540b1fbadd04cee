"""The stage of what the program read back has cut."""
