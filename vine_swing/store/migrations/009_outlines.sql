-- Which point of a key's outline meets which of the next key's: [own, next], as JSON.
ALTER TABLE key ADD COLUMN meets TEXT CHECK (meets IS NULL OR json_valid(meets));

-- The colours kept with a scene, as JSON.
ALTER TABLE scene ADD COLUMN palette TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(palette));
