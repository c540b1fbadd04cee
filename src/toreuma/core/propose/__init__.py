"""The numbers of a cut, chosen inside all limits, with the reasons."""
