"""The stage of the hand-over and of both spindles at work."""
