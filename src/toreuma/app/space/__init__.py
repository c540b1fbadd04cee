"""The view in space: bodies drawn without a screen, and the widget that shows them."""
