"""Files: jobs, and the data that ships with Toreuma."""
