"""What every request passes first: our own host and origin only, a body of a bearable size and a known type; and what every answer carries."""

import asyncio
import re
from urllib.parse import unquote

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from vine_swing.service.problems import response, unforeseen

#: Bytes of a request, and of one that is a file: a bundle holds all its pictures.
MAX_BODY, MAX_FILE = 16 * 1024 * 1024, 128 * 1024 * 1024
OWN_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
#: A host as HTTP writes it (RFC 9110, 7.2): a name or address and perhaps a port, nothing else.
_HOST = re.compile(r"(?P<name>[A-Za-z0-9.-]+|\[[0-9A-Fa-f:]+\])(?::(?P<port>[0-9]{1,5}))?")
#: What writes may carry; a form that another site's page could send without asking first is none of them.
_BODIES = {"application/json", "application/octet-stream"}
_WRITES = {"POST", "PUT", "PATCH"}
_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; media-src 'self' blob:;"
    " frame-ancestors 'none'; base-uri 'none'; form-action 'none'; object-src 'none'"
)
#: Every answer carries these; an answer may set a policy of its own.
_HEADERS = {
    "x-content-type-options": "nosniff",
    "content-security-policy": _POLICY,
    "cross-origin-resource-policy": "same-origin",
    "cross-origin-opener-policy": "same-origin",
    "referrer-policy": "no-referrer",
}


#: Where the ASGI scope of a request keeps an event that is set once all of its body has been read. Who asks for messages before that takes parts of
#: the body away from whoever reads it.
BODY_READ = "vine_swing.body_read"


class TooLarge(Exception):
    """The body grew past the limit while it was being read."""


class Guard:
    """ASGI middleware. Pages of other sites cannot reach the service, whatever name they found for this machine; and no error goes unanswered."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "websocket":
            if _foreign(Headers(scope=scope)) is None:
                await self._app(scope, receive, send)
            else:
                # Closed before the handshake, it is answered with 403.
                await send({"type": "websocket.close", "code": 1008})
            return
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        started = False
        read, most = 0, _most(Headers(scope=scope))
        body_read = scope[BODY_READ] = asyncio.Event()
        if not _has_body(Headers(scope=scope)):
            body_read.set()

        async def counted() -> Message:
            nonlocal read
            message = await receive()
            read += len(message.get("body", b""))
            if read > most:
                raise TooLarge
            if not message.get("more_body"):
                body_read.set()
            return message

        async def guarded(message: Message) -> None:
            nonlocal started
            if message["type"] == "http.response.start":
                started = True
                has = {name.lower() for name, _ in message["headers"]}
                added = [(name.encode(), value.encode()) for name, value in _HEADERS.items() if name.encode() not in has]
                message["headers"] = [*message["headers"], *added]
            await send(message)

        refusal = _refusal(scope)
        if refusal is not None:
            await response(*refusal)(scope, receive, guarded)
            return
        try:
            await self._app(scope, counted, guarded)
        except TooLarge:
            if started:
                raise
            await response(*_too_large(Headers(scope=scope)))(scope, receive, guarded)
        except Exception as error:
            if started:
                raise
            await unforeseen(error)(scope, receive, guarded)


def _foreign(headers: Headers) -> tuple[int, str, str] | None:
    """Why whoever asks is none of our own pages, if so."""
    host = headers.get("host", "")
    if not _is_own(host):
        return 403, "Foreign host", f"this service answers to 127.0.0.1 and localhost only, not to '{host[:80]}'"
    if len(headers.getlist("origin")) > 1 or len(headers.getlist("host")) > 1:
        return 403, "Foreign origin", "a request names its origin and its host once"
    origin = headers.get("origin")
    if origin is not None and origin not in (f"http://{host}", f"https://{host}"):
        return 403, "Foreign origin", f"requests from pages of '{origin[:80]}' are refused; open Vine Swing at its own address"
    if headers.get("sec-fetch-site") == "cross-site":
        return 403, "Foreign page", "requests from pages of other sites are refused; open Vine Swing at its own address"
    return None


def _refusal(scope: Scope) -> tuple[int, str, str] | None:
    headers = Headers(scope=scope)
    foreign = _foreign(headers)
    if foreign is not None:
        return foreign
    length = headers.get("content-length", "0")
    if not (length.isascii() and length.isdigit()) or int(length) > _most(headers):
        return _too_large(headers)
    if scope["method"] in _WRITES and _has_body(headers):
        kind = headers.get("content-type", "").partition(";")[0].strip().lower()
        if kind not in _BODIES:
            return 415, "Unknown kind of body", f"a request's body must be application/json, not '{kind[:80]}'; say so in its content-type"
    path = unquote(scope["path"])
    if any(ord(character) < 32 or ord(character) == 127 for character in path):
        return 400, "No such address", "the address has control characters in it, which no address here has"
    return None


def _has_body(headers: Headers) -> bool:
    return headers.get("content-length", "0") != "0" or "transfer-encoding" in headers


def _is_own(host: str) -> bool:
    """Whether a Host header names this machine, exactly: no user, no path, no port beyond 65535."""
    found = _HOST.fullmatch(host)
    if found is None or (found["port"] is not None and int(found["port"]) > 65535):
        return False
    return found["name"].lower() in OWN_HOSTS


def _most(headers: Headers) -> int:
    """How many bytes the body of a request may have."""
    return MAX_FILE if headers.get("content-type", "").startswith("application/octet-stream") else MAX_BODY


def _too_large(headers: Headers) -> tuple[int, str, str]:
    most = _most(headers) // 1024 // 1024
    return 413, "Too large", f"a request may be at most {most} MB; make the file smaller, for example by simplifying its outlines"
