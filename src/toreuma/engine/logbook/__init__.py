"""What the log is for: first articles, runs, edges, constants, and what the last run taught."""
