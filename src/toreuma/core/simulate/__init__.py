"""What the cuts do to the stock, and how long they take."""
