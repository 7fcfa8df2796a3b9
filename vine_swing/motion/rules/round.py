"""Round: corners become arcs of some radius, as far as what is beside them is long enough."""

import numpy as np

from vine_swing.motion.curves.contours import Contour, directions, sections
from vine_swing.motion.curves.length import ArcLengths
from vine_swing.motion.rules.bending import Bending, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name

#: Of two pieces that meet in a spike, so much of a half turn is rounded at most: an arc of a half turn has no end.
_WIDEST = np.radians(179.0)


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours with rounded corners."""
    return [_rounded(one, rest, how.number("radius")) for one, rest in zip(contours, how.rest, strict=True)]


def _rounded(contour: Contour, rest: Contour, radius: Array) -> Contour:
    joints = len(contour.straight)
    sharp = rest.corners()[:joints].copy()
    sharp[0] &= contour.closed
    corners = np.flatnonzero(sharp)
    if not len(corners):
        return contour
    out, into = directions(contour.pieces)
    into = np.roll(into, 1, axis=1)
    cross = into[..., 0] * out[..., 1] - into[..., 1] * out[..., 0]
    turn = np.clip(np.abs(np.arctan2(cross, (into * out).sum(axis=-1))), 0, _WIDEST)
    gone = ArcLengths.of(contour)
    lengths = np.diff(gone.at_joints, axis=1)
    # Half of a piece at most, or all where its other end is no corner.
    after = np.roll(sharp, -1)
    if not contour.closed:
        after[-1] = False
    room = lengths * np.where(sharp & after, 0.5, 1.0)
    half = np.tan(turn / 2)
    cut = np.where(sharp, np.minimum(np.maximum(radius, 0) * half, np.minimum(room, np.roll(room, 1, axis=1))), 0.0)
    arriving = np.roll(cut, -1, axis=1)
    if not contour.closed:
        arriving[:, -1] = 0.0
    first = gone.at_joints[:, :-1]
    _, u = gone.places(first + cut)
    _, v = gone.places(first + lengths - arriving)
    u, v = np.where(cut > 0, u, 0.0), np.where(arriving > 0, v, 1.0)
    pieces = sections(contour.pieces, u, np.maximum(u, v))
    tight = np.divide(cut, half, out=np.zeros_like(cut), where=half > 1e-9)
    handle = (4 / 3 * np.tan(turn / 4) * tight)[..., None]
    came, goes = np.roll(pieces[:, :, 3], 1, axis=1), pieces[:, :, 0]
    arcs = np.stack([came, came + into * handle, goes - out * handle, goes], axis=2)
    # Each corner's arc comes before the piece that leaves it.
    order = np.concatenate([[n + len(contour.straight), n] if sharp[n] else [n] for n in range(joints)])
    both = np.concatenate([pieces, arcs], axis=1)[:, order]
    straight = np.concatenate([contour.straight, np.zeros(joints, bool)])[order]
    return Contour(both, straight, contour.closed)


SPEC = RuleSpec(
    kind="round",
    label="Round",
    about="Takes the edge off corners: pebbles, soap, soft type.",
    settings=by_name(
        SettingSpec("radius", "radius", "px", 12.0, 0.0, 100_000.0, usual=(0.0, 100.0), step=1.0, about="How round the corners become."),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    value_kind="outline",
    for_channels=("outline",),
    example={"radius": 6.0},
    summary="{radius}",
)
