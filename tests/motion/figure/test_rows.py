"""Legs and limbs that are computed together, one a row, are where each would be alone."""

import numpy as np
import pytest

from tests.motion.figure.walkers import BODY, TRAVEL
from vine_swing.motion.basics import matrix
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.footfalls import Feet, FootfallRows, Footfalls, footing
from vine_swing.motion.figure.pose import bones, carried_by
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.figure.stretches import analysed, stretches
from vine_swing.motion.figure.style import Style
from vine_swing.motion.timing.evaluate import evaluate

T = np.linspace(0, 119, 200)


def footfalls(legs, travel="stop and go"):
    """A stretch that a body walks, and the footfalls of some legs in it."""
    frames = analysed(240)
    (gone,) = evaluate([TRAVEL[travel]], frames)
    stretch = stretches(frames, gone, np.full(len(frames), 120.0), 0.0)[0]
    return stretch, [Footfalls.planned(stretch, (n + 0.3) / len(legs), 0.62, (n, len(legs))) for n in range(len(legs))]


@pytest.mark.parametrize("travel", sorted(TRAVEL))
def test_feet_together_step_as_each_does_alone(travel):
    legs = STARTERS["six-legs"].figure.legs
    stretch, each = footfalls(legs, travel)
    phase = stretch.phase_at(T)
    together = FootfallRows.of(each).at(phase)
    begins = 0
    for n, one in enumerate(each):
        alone = FootfallRows.of([one]).at(phase)
        np.testing.assert_array_equal(together.down[n], alone.down[0])
        np.testing.assert_array_equal(together.share[n], alone.share[0])
        np.testing.assert_array_equal(together.place[n] - begins, alone.place[0])
        np.testing.assert_array_equal(together.after[n] - begins, alone.after[0])
        begins += len(one.middles)


@pytest.mark.parametrize("preset", ["stroll", "run"])
@pytest.mark.parametrize("way", [1, -1])
def test_feet_together_stand_where_each_does_alone(preset, way):
    figure = STARTERS[BODY[preset]].figure
    stretch, each = footfalls(figure.legs)
    own = {"share": 1.0, "overlap": 2.0} | GAITS[preset].for_figure(figure)
    style = Style(**{name: np.array([float(own.get(name, 1.0))]) for name in Style.names()})
    phase, size = stretch.phase_at(T), np.linspace(0.5, 2.0, len(T))
    rows = FootfallRows.of(each)
    spots = np.random.default_rng(1).uniform(-20, 20, (3, len(rows.middles)))
    together = footing(Feet.of(figure.legs), rows, rows.at(phase), style, size, way, *spots)
    for n, (leg, one) in enumerate(zip(figure.legs, each, strict=True)):
        row, own_spots = FootfallRows.of([one]), spots[:, rows.first[n] : rows.last[n] + 1]
        alone = footing(Feet.of([leg]), row, row.at(phase), style, size, way, *own_spots)
        for name in ("x", "ahead", "y", "turn", "slack"):
            np.testing.assert_array_equal(getattr(together, name)[n], getattr(alone, name)[0], err_msg=f"{name} of {leg.name}")


@pytest.mark.parametrize("starter", sorted(STARTERS))
def test_limbs_that_move_do_not_make_others_move(starter):
    figure = STARTERS[starter].figure
    channels = {name: np.array([float(spec.default)]) for name, spec in joint_channels(figure).items()}
    still = bones(figure, channels)
    first = figure.limbs[0].id
    moved = bones(figure, channels | {f"{first}.end": np.linspace(0, 40, 30)})
    for name, bone in moved.items():
        if name.startswith(f"{first}."):
            assert bone.shape == (30, 6), name
        else:
            np.testing.assert_array_equal(bone, still[name], err_msg=name)
            assert len(bone) == 1, f"{name} is worked out once, as it does not move"
    assert list(moved) == list(figure.bones)


def test_what_is_carried_together_goes_where_each_would_go_alone():
    rng = np.random.default_rng(2)
    carrier = rng.uniform(-2, 2, (9, 6))
    named = {name: rng.uniform(-2, 2, (count, 6)) for name, count in (("a", 9), ("b", 1), ("c", 9), ("d", 1))}
    carried = carried_by(carrier, named)
    assert list(carried) == list(named)
    for name, one in named.items():
        np.testing.assert_array_equal(carried[name], matrix.multiply(carrier, one), err_msg=name)
