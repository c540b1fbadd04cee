"""The stage of choosing tools and putting them in stations."""
