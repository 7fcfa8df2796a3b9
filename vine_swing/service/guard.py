"""What every request passes first: our own host and origin only, and a body of bearable size."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from vine_swing.service.problems import response

MAX_BODY = 16 * 1024 * 1024
OWN_HOSTS = {"127.0.0.1", "localhost", "::1"}
_POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; media-src 'self' blob:; frame-ancestors 'none'"


class TooLarge(Exception):
    """The body grew past the limit while it was being read."""


class Guard:
    """ASGI middleware. Pages of other sites cannot reach the service, whatever name they found for this machine."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        refusal = self._refusal(headers)
        if refusal is not None:
            await response(*refusal)(scope, receive, send)
            return
        started = False
        read = 0

        async def counted() -> Message:
            nonlocal read
            message = await receive()
            read += len(message.get("body", b""))
            if read > MAX_BODY:
                raise TooLarge
            return message

        async def watched(message: Message) -> None:
            nonlocal started
            if message["type"] == "http.response.start":
                started = True
                added = [(b"x-content-type-options", b"nosniff")]
                if all(name.lower() != b"content-security-policy" for name, _ in message["headers"]):
                    added.append((b"content-security-policy", _POLICY.encode()))
                message["headers"] = [*message["headers"], *added]
            await send(message)

        try:
            await self._app(scope, counted, watched)
        except TooLarge:
            if started:
                raise
            await response(*_too_large())(scope, receive, send)

    def _refusal(self, headers: Headers) -> tuple[int, str, str] | None:
        host = headers.get("host", "")
        if _name(f"//{host}") not in OWN_HOSTS:
            return 403, "Foreign host", f"this service answers to 127.0.0.1 and localhost only, not to '{host[:80]}'"
        origin = headers.get("origin")
        if origin is not None and (_name(origin) not in OWN_HOSTS or urlsplit(origin).netloc != host):
            return 403, "Foreign origin", f"requests from pages of '{origin[:80]}' are refused; open Vine Swing at its own address"
        length = headers.get("content-length", "0")
        if not length.isdigit() or int(length) > MAX_BODY:
            return _too_large()
        return None


def _name(address: str) -> str | None:
    try:
        return urlsplit(address).hostname
    except ValueError:
        return None


def _too_large() -> tuple[int, str, str]:
    return 413, "Too large", f"a request may be at most {MAX_BODY // 1024 // 1024} MB; make the file smaller, for example by simplifying its outlines"
