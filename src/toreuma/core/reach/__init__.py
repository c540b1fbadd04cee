"""What a tool reaches on a part, before anything is planned with it."""
