"""Bodies in space, drawn without a screen."""
