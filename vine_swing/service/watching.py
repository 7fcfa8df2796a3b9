"""Pages that have a scene open: who they are, and telling them at once what happens to it."""

import asyncio
import threading
import unicodedata
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from typing import Literal

from pydantic import BaseModel

from vine_swing.store import Author


class PageWords(BaseModel):
    """A page that has a scene open: the id it gave itself, and what its user is called."""

    id: str
    name: str


class PagesHere(BaseModel):
    """All pages that have a scene open now, in the order they came."""

    news: Literal["here"] = "here"
    pages: list[PageWords]


How = Literal["made", "undone", "redone"]


class SceneChanged(BaseModel):
    """A scene is at another revision. what: as undo calls it. how: whether it was made, taken back or done again. by: who did it, if a page."""

    news: Literal["changed"] = "changed"
    revision: int
    what: str
    how: How
    by: PageWords | None


class SceneGone(BaseModel):
    """A scene was deleted."""

    news: Literal["gone"] = "gone"


News = PagesHere | SceneChanged | SceneGone
#: News a page may be behind with: of more, it only needs the newest.
_BEHIND = 100


@dataclass
class Watcher:
    """A page that watches a scene. Its news wait in a queue that belongs to the event loop the page is served by."""

    author: Author
    loop: asyncio.AbstractEventLoop
    news: "asyncio.Queue[News]" = field(default_factory=lambda: asyncio.Queue(_BEHIND))

    def tell(self, news: News) -> None:
        """Hand it some news, from whichever thread."""
        self.loop.call_soon_threadsafe(self._put, news)

    def _put(self, news: News) -> None:
        if self.news.full():
            self.news.get_nowait()
        self.news.put_nowait(news)


class Watchers:
    """The pages that have scenes open."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._of: dict[str, list[Watcher]] = {}

    @contextmanager
    def joined(self, scene_id: str, page: str) -> Iterator[Watcher]:
        """A page watches a scene, called by a number at first; to be called in the event loop that serves it."""
        with self._lock:
            watcher = Watcher(Author(page, self._number(scene_id, page)), asyncio.get_running_loop())
            self._of.setdefault(scene_id, []).append(watcher)
        self._tell_who(scene_id)
        try:
            yield watcher
        finally:
            with self._lock:
                self._of[scene_id].remove(watcher)
                if not self._of[scene_id]:
                    del self._of[scene_id]
            self._tell_who(scene_id)

    def call(self, scene_id: str, watcher: Watcher, name: str) -> None:
        """Call the user of a page by another name; by a number again, if it is empty. A duplicated tab is called the same."""
        page = watcher.author.page
        with self._lock:
            here = self._of[scene_id]
            called = name or _free_number(one.author.name for one in here if one.author.page != page)
            for one in here:
                if one.author.page == page:
                    one.author = replace(one.author, name=called)
        self._tell_who(scene_id)

    def author(self, scene_id: str, page: str | None) -> Author | None:
        """Who a page is, by the id it gave itself."""
        if page is None:
            return None
        with self._lock:
            known = [watcher.author for watcher in self._of.get(scene_id, ()) if watcher.author.page == page]
        return known[0] if known else Author(page, "Another page")

    def others(self, scene_id: str, page: str | None) -> frozenset[str]:
        """The ids of the pages that have a scene open, without one."""
        with self._lock:
            return frozenset(watcher.author.page for watcher in self._of.get(scene_id, ())) - {page}

    def tell(self, scene_id: str, news: News) -> None:
        """Tell all pages that have a scene open."""
        with self._lock:
            told = list(self._of.get(scene_id, ()))
        for watcher in told:
            watcher.tell(news)

    def scenes(self) -> list[str]:
        """The ids of the scenes that pages have open."""
        with self._lock:
            return list(self._of)

    def _number(self, scene_id: str, page: str) -> str:
        """What a page that comes is called: by a free number; of two with one id, as a duplicated tab has, both are called the same."""
        here = self._of.get(scene_id, ())
        same = (watcher.author.name for watcher in here if watcher.author.page == page)
        return next(same, None) or _free_number(watcher.author.name for watcher in here)

    def _tell_who(self, scene_id: str) -> None:
        with self._lock:
            here = {watcher.author.page: watcher.author.name for watcher in self._of.get(scene_id, ())}
        self.tell(scene_id, PagesHere(pages=[PageWords(id=page, name=name) for page, name in here.items()]))


def _free_number(taken: Iterable[str]) -> str:
    """The first of "Page 1", "Page 2" … that nobody is called."""
    names = set(taken)
    return next(name for name in (f"Page {n}" for n in range(1, len(names) + 2)) if name not in names)


#: Characters that set or override the direction of writing (UAX 9, 2).
_DIRECTIONS = frozenset("\u061c\u200e\u200f\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
#: Categories of characters that are no writing: controls, surrogates, and separators of lines and paragraphs.
_NO_WRITING = ("Cc", "Cs", "Zl", "Zp")


def plain_text(name: str) -> str:
    """Return a name without control characters and without those that override the direction of the text around it; runs of spaces become one."""
    return " ".join("".join(" " if one in _DIRECTIONS or unicodedata.category(one) in _NO_WRITING else one for one in name).split())
