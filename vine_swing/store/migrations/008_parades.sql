-- How a parade lays out its copies, with its lists, as JSON.
ALTER TABLE object ADD COLUMN parade TEXT CHECK (parade IS NULL OR json_valid(parade));
