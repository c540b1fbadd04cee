"""What every planner stands on: its work, its path, its frame, and what it gives back."""
