"""Work that the first requests would otherwise wait for, done in the background after the start."""

from importlib import import_module

from vine_swing.formats import isolated
from vine_swing.service.routes.rule_words import rule_words

#: Loaded only by what uses them, a figure on uneven ground or a morph of several contours, say: a fifth of a second each.
_USED_LATER = ("scipy.ndimage", "scipy.optimize")


def prepare() -> None:
    """Describe and picture the rules, load what some scenes need, and get ready to read foreign files; about two seconds of one core."""
    rule_words()
    for name in _USED_LATER:
        import_module(name)
    isolated.prepare()
