-- Whether an object is locked against being picked and moved in the picture; it is not for rows that say nothing.
ALTER TABLE object ADD COLUMN locked INTEGER;
-- The colour that marks an object in lists, if any does.
ALTER TABLE object ADD COLUMN tag TEXT;
-- The notes of a scene that are not wanted, as JSON; none for rows that say nothing.
ALTER TABLE scene ADD COLUMN hushed TEXT CHECK (hushed IS NULL OR json_valid(hushed));
