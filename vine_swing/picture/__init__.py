"""From baked motion to pictures: outlines, drawables, and painting a frame with Skia."""
