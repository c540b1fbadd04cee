"""From a part to a route: which tools, which operations, in which order, each with its reasons."""
