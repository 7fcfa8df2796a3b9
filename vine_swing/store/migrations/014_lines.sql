-- How an object is laid onto what lies below; as usual for rows that say nothing. How the line of a shape is drawn, as JSON.
ALTER TABLE object ADD COLUMN blend TEXT;
ALTER TABLE object ADD COLUMN line TEXT CHECK (line IS NULL OR json_valid(line));
