-- Whether an object keeps to the picture, wherever the camera looks; nothing for rows that steps from before this put back.
ALTER TABLE object ADD COLUMN pinned INTEGER;
-- Whether its motion is blurred, where the scene's is; it is for rows that say nothing.
ALTER TABLE object ADD COLUMN blurred INTEGER;
-- How motion is blurred, as JSON; nothing where it is not.
ALTER TABLE scene ADD COLUMN blur TEXT CHECK (blur IS NULL OR json_valid(blur));
