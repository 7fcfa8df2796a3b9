-- Whether an object keeps to the picture, wherever the camera looks; nothing for rows that steps from before this put back.
ALTER TABLE object ADD COLUMN pinned INTEGER;
