"""What driven tools cut: holes beside the axis, flats, slots, pockets, their edges."""
