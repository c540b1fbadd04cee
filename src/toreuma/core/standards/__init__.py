"""Published standards: threads, limits and fits, thread reliefs. The tables themselves are data files."""
