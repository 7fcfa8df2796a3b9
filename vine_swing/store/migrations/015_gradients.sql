-- The gradients of a shape's fill and stroke, as JSON; NULL for one colour each.
ALTER TABLE object ADD COLUMN paints TEXT CHECK (paints IS NULL OR json_valid(paints));
