"""The places of rows in lists."""

import sqlite3

#: Tables whose rows have a place in a list, and the column of what the list belongs to.
_LISTED = {
    "object": "scene",
    "dial": "scene",
    "cue": "scene",
    "picture": "scene",
    "font": "scene",
    "sound": "scene",
    "rule": "object",
    "scene": "within",
}
_OF_SCENE = {"scene": "{0} = :scene OR {0} LIKE :inside", "object": "{0} IN (SELECT row FROM object WHERE scene = :scene OR scene LIKE :inside)"}


def renumber(db: sqlite3.Connection, scene_id: str) -> None:
    """Number the rows of every list of a scene from 0 on without gaps, in their order: as if the list had been written again."""
    for table, owner in _LISTED.items():
        key = "id" if table == "scene" else "row"
        within = _OF_SCENE["object" if owner == "object" else "scene"].format(owner)
        places = f"SELECT {key} AS part, row_number() OVER (PARTITION BY {owner} ORDER BY position, rowid) - 1 AS place FROM {table} WHERE {within}"
        db.execute(
            f"UPDATE {table} SET position = listed.place FROM ({places}) AS listed"
            f" WHERE {table}.{key} = listed.part AND {table}.position <> listed.place",
            {"scene": scene_id, "inside": f"{scene_id}/%"},
        )
