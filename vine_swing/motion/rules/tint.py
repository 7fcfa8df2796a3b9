"""Tint: a colour dial colours what takes it, blended in OKLab (B. Ottosson, 2020); how see-through objects are stays.

With `neutral`, the dial's colour at which nothing changes, only what the dial moves away from it is added: so a tint put on never makes the
picture jump. Without it the colours are mixed.
"""

import re

import numpy as np

from vine_swing.motion.basics import colour
from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of

_VALUE = "value"
_HEX = re.compile(r"#(?:[0-9A-Fa-f]{3,4}|[0-9A-Fa-f]{6}|[0-9A-Fa-f]{8})")


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The colours, blended towards the dial's by the share, or moved as the dial has moved from its neutral colour."""
    dial = _dial(source, settings)
    if dial is None:
        return source.at
    neutral = settings.choice("neutral")
    middle = colour.to_oklab(np.append(colour.parse_hex(neutral)[:3], 1.0)) if _HEX.fullmatch(neutral) else None

    def read_at(t: Array) -> Array:
        own, given = source.at(t), dial.at(t)
        share = number_of(settings, "share", t)[..., None]
        before, towards = _lab(own), _lab(given)
        # A dial that can be seen through tints the less.
        share = share * given[..., 3:]
        after = before + share * (towards - (before if middle is None else middle[:3]))
        opaque = np.concatenate([after, np.ones_like(after[..., :1])], axis=-1)
        return np.concatenate([colour.from_oklab(opaque)[..., :3], np.broadcast_to(own[..., 3:], (*after.shape[:-1], 1))], axis=-1)

    return read_at


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """Whether there is a dial with colours to take."""
    name = settings.choice("dial")
    if not name:
        return "no dial is chosen yet; the colour stays"
    found = source.scene.final(f"dial:{name}", _VALUE)
    if found is None:
        return "its dial is gone; the colour stays"
    return None if found.at(t).ndim == 3 else "its dial holds numbers; choose one with colours"


def _dial(source: Source, settings: Settings) -> Source | None:
    found = source.scene.final(f"dial:{settings.choice('dial')}", _VALUE)
    return found if found is not None and found.at(np.zeros((1, 1))).ndim == 3 else None


def _lab(rgba: Array) -> Array:
    """OKLab of colours as if they were opaque, (…, 3)."""
    return colour.to_oklab(np.concatenate([rgba[..., :3], np.ones_like(rgba[..., :1])], axis=-1))[..., :3]


SPEC = RuleSpec(
    kind="tint",
    label="Tint",
    about="Takes the colour of a dial: one dusk or one lamp for everything.",
    settings=by_name(
        SettingSpec("dial", "dial", "", "", names="dial", about="The dial whose colour it takes."),
        SettingSpec("share", "share", "×", 1.0, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="How much of it: 0 nothing, 1 all."),
        SettingSpec(
            "neutral", "neutral", "", "", names="colour", about="The dial's colour at which nothing changes; empty mixes towards the dial's colour."
        ),
    ),
    modes=(),
    prepare=prepare,
    summary="{dial} · {share}",
    example={"dial": "shown", "share": 0.7},
    for_channels=("fill",),
    value_kind="colour",
    remark=remark,
    dependencies=lambda word, channel: ((f"dial:{word('dial')}", _VALUE),) if word("dial") else (),
)
