"""Speed, feed, force, power and finish, each number with its reasons."""
