"""Stations and carriers: what fits, what reaches, what stands in the way."""
