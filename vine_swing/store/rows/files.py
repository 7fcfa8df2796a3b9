"""Files of pictures, fonts and sounds: kept by their content, once whoever uses it."""

import hashlib
import sqlite3


def kept_blob(db: sqlite3.Connection, media_type: str, content: bytes) -> str:
    """Keep a content, once whoever uses it, and give the SHA-256 it is found by."""
    digest = hashlib.sha256(content).hexdigest()
    db.execute("INSERT OR IGNORE INTO blob (hash, media_type, data) VALUES (?, ?, ?)", (digest, media_type, content))
    return digest
