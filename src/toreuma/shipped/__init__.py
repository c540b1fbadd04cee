"""Data that ships with the application."""
