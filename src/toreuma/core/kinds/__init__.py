"""What kinds of operations, features and tools there are: each declared once, everything else derives from it."""
