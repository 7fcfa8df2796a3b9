"""What shapes are drawn from: plain ones, outlines and texts set in fonts."""
