"""The stages of a job, one folder each: its panel, its reasons, what it paints."""
