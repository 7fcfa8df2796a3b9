"""Routes: each parses, calls one thing, and shapes the answer."""
