"""The use cases over the core: plan, write, read back and prove a job; pairs, routes, features, search."""
