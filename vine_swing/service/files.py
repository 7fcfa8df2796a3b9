"""Requests whose body is a file."""

from typing import Any

from fastapi import Request

from vine_swing.motion.basics.errors import MotionError

#: How such a request is described in the OpenAPI document.
FILE_BODY: dict[str, Any] = {
    "requestBody": {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}, "required": True}
}


async def file_body(request: Request, name: str, most: int, advice: str) -> bytes:
    """Return the body of a request.

    Args:
        request: the request.
        name: what messages call the file.
        most: how many bytes it may have; it is refused before more are read.
        advice: what to do with a larger file.

    Raises:
        MotionError: if it is larger.
    """
    data = bytearray()
    async for part in request.stream():
        data += part
        if len(data) > most:
            raise MotionError(f"'{name}' has more than {most / 1e6:.0f} MB; {advice}")
    return bytes(data)


def plain_name(name: str) -> str:
    """The name of a file as people read it: without folders, and without characters that names may not have."""
    last = name.replace("\\", "/").rpartition("/")[2]
    kept = "".join(one for one in last if one.isprintable() and one not in "{}@").strip()
    return kept[:80] or "Picture"
