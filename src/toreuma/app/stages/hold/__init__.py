"""The stage of what grips the blank, and of the second hold."""
