"""What one operation means for another, and what the other tools offer: said once every operation is planned."""
