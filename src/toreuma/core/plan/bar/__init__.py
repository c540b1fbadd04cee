"""The bar behind the spindle: supply, yield, feeding."""
