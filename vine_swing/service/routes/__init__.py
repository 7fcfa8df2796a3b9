"""Routes: each parses, calls one object, and shapes the answer."""
