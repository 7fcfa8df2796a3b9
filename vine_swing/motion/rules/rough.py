"""Rough: noise along the outward normal, still or drawn again this many times a second, as the line of a hand that draws every picture again."""

import numpy as np

from vine_swing.motion.basics.chance import lattice_noise, mixed
from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.curves.length import ArcLengths
from vine_swing.motion.curves.places import spread
from vine_swing.motion.rules.bending import Bending, no_numbers
from vine_swing.motion.rules.spec import AT_START, RuleSpec, SettingSpec, by_name, number_of

#: Places to a stretch of noise: one of `size` px.
_PLACES = 4
_MOST_PLACES = 4_000


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours with the noise on them."""
    seed = number_of(how.settings, "seed", AT_START).astype(np.uint64)
    # A hair is added so that 0.3 s at 10 a second counts as three whole changes.
    drawing = np.floor(how.run("changes") + 1e-9).astype(np.int64).astype(np.uint64)
    outward, size = how.outward, how.number("size")
    finest = float(number_of(how.settings, "size", how.scene).min())
    found = []
    for number, (contour, rest) in enumerate(zip(contours, how.rest, strict=True)):
        total = float(ArcLengths.of(rest).total[0])
        places = spread(contour, rest, int(min(max(8.0, np.ceil(_PLACES * total / finest)), _MOST_PLACES)))
        stretches = np.maximum(1.0, np.round(total / size))
        streams = mixed(seed, np.full((1, 1), number, np.uint64), drawing)
        noise = lattice_noise(places.share * stretches, streams, stretches.astype(np.int64) if contour.closed else None)
        push = outward * how.number("amplitude") * noise
        found.append(places.pushed(push, smooth=True))
    return found


SPEC = RuleSpec(
    kind="rough",
    label="Rough",
    about="An uneven line: stone, bark, torn paper; drawn anew many times a second it boils.",
    settings=by_name(
        SettingSpec("amplitude", "amplitude", "px", 4.0, usual=(0.0, 40.0), about="The most it strays out or in."),
        SettingSpec("size", "size", "px", 24.0, 0.5, 10_000.0, usual=(4.0, 120.0), step=1.0, about="About how long each bump is."),
        SettingSpec("changes", "changes", "/s", 0.0, 0.0, 240.0, usual=(0.0, 24.0), step=1.0, about="How often it is drawn anew; 0 keeps it still."),
        SettingSpec(
            "seed", "seed", "", 1.0, 0.0, 1e9, usual=(1.0, 100.0), step=1.0, about="Another number, another line; the same number, the same line."
        ),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    still=lambda settings, t: settings.breaks("changes") is None and not number_of(settings, "changes", t).any(),
    value_kind="outline",
    for_channels=("outline",),
    example={"amplitude": 4.0, "size": 9.0},
    summary="± {amplitude} · {size} · {changes}",
)
