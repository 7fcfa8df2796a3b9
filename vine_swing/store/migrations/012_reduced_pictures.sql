-- Smaller versions of large pictures, by the first digits of their content and how wide they were asked for: a cache.
CREATE TABLE reduced (
  picture TEXT NOT NULL,
  wide INTEGER NOT NULL,
  data BLOB NOT NULL,
  PRIMARY KEY (picture, wide)
) STRICT, WITHOUT ROWID;
