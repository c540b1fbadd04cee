"""What runs beside each other: channels, their waits, and the part going from spindle to spindle."""
