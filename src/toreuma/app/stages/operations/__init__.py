"""The stage of the route."""
