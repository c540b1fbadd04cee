"""The shop: the person's own machines, holds, materials, tools, bars and house rules."""
