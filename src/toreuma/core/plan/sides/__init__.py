"""The other side of the part, and two parts back to back."""
