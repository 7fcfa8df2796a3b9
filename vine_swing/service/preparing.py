"""What the first pages and requests would else wait for, done beside them once the service is up."""

from importlib import import_module

from vine_swing.service.routes.rule_words import rule_words

#: Loaded only by what uses them, a figure on uneven ground or a morph of several contours, say: a fifth of a second each.
_USED_LATER = ("scipy.ndimage", "scipy.optimize")


def prepare() -> None:
    """Work out the words and pictures of rules, and load what some scenes need; about three quarters of a second."""
    rule_words()
    for name in _USED_LATER:
        import_module(name)
