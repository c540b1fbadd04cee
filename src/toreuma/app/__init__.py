"""The window. It shows what the core computed and passes on what the person decides."""
