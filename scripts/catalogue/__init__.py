"""The starter catalogue: made-up tools from rules and ranges, sized as the standards and tables have them."""
