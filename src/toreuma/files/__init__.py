"""The person's own files: jobs, rack, own values of materials."""
