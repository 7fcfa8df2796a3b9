"""Retime, steps, noise, spring, smooth and limit: each against its closed form, scipy, or the law it must keep."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import simpson, solve_ivp
from scipy.stats import norm

from tests.motion.scenes import channel, channels, scene, shape
from vine_swing.motion import SceneFileError, bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics.gauss import PLACES
from vine_swing.motion.rules import RULES
from vine_swing.motion.rules.rule import Rule, RuleSettings
from vine_swing.motion.timing.evaluate import evaluate

FPS = 24
T = np.arange(0, 96, 0.25)
MOVE = channel((0, 0, "slow-out-in"), (20, 100), (50, -40, "heavy"), (90, 60))


def rule(kind, channels=("x",), on=True, **given):
    written = {k: v.model_dump() if hasattr(v, "model_dump") else v for k, v in given.items()}
    return {"id": f"{kind}-{len(given)}", "kind": kind, "on": on, "channels": list(channels), "settings": written}


def after(x, *rules, t=T, thing="pod"):
    return bake(scene(shape(thing, name="Pod", x=x, rules=[one | {"id": f"r{n}"} for n, one in enumerate(rules)]), length=96, fps=FPS), t)["Pod", "x"]


def plain(x, t):
    return after(x, t=np.asarray(t, float))


# -- time rules


@pytest.mark.parametrize(("delay", "speed"), [(7, 1), (-3.5, 1), (4, 2), (0, 0.5), (10, -1), (0, 0)])
def test_retime_reads_elsewhere_exactly(delay, speed):
    np.testing.assert_allclose(after(MOVE, rule("retime", delay=delay, speed=speed)), plain(MOVE, speed * (T - delay)), atol=1e-9)


def test_a_keyed_speed_is_the_time_that_has_run():
    speed = channel((0, 1), (48, 0))
    run = np.where(T < 48, T - T**2 / 96, 24)
    np.testing.assert_allclose(after(MOVE, rule("retime", speed=speed)), plain(MOVE, run), atol=1e-6)


@pytest.mark.parametrize(("every", "offset"), [(2, 0), (3, 1), (2.5, 0), (0.1, 0), (12, -5)])
def test_steps_hold_exactly(every, offset):
    held = after(MOVE, rule("steps", every=every, offset=offset), t=np.arange(96.0))
    np.testing.assert_allclose(held, plain(MOVE, np.floor((np.arange(96) - offset) / every + 1e-9) * every + offset), atol=1e-9)


@given(channels(), st.floats(-20, 20), st.floats(-20, 20))
def test_two_delays_are_one(x, a, b):
    two, one = after(x, rule("retime", delay=a), rule("retime", delay=b), t=T[::8]), after(x, rule("retime", delay=a + b), t=T[::8])
    size = 1 + max(abs(key.number) for key in x.keys)
    # Where the value jumps, rounding of the sum decides on which side a frame falls.
    assert np.mean(np.abs(two - one) > 1e-6 * size) < 0.1


# -- spring


def followed(x_of, frequency, damping, t, breaks=()):
    """scipy's own integration of the equation, piece by piece between jumps."""
    omega = 2 * np.pi * frequency

    def slope(s, z):
        return [z[1], omega**2 * (x_of(np.array([s * FPS]))[0] - z[0]) - 2 * damping * omega * z[1]]

    found, state, at = np.full(len(t), x_of(np.zeros(1))[0]), [x_of(np.zeros(1))[0], 0.0], 0.0
    for end in [*[b for b in sorted(breaks) if 0 < b < t[-1]], t[-1] + 1e-9]:
        inside = (t >= at) & (t < end)
        solved = solve_ivp(slope, (at / FPS, end / FPS - 1e-12), state, method="DOP853", rtol=1e-10, atol=1e-10, dense_output=True, max_step=1 / FPS)
        if inside.any():
            found[inside] = solved.sol(t[inside] / FPS)[0]
        state, at = solved.y[:, -1], end
    return found


@pytest.mark.parametrize("damping", [0.0, 0.2, 0.999999, 1.0, 1.000001, 2.5])
@pytest.mark.parametrize("name", ["step", "ramp", "keyed"])
def test_spring_agrees_with_scipy(damping, name):
    x = {"step": channel((0, 0, "hold"), (10, 100)), "ramp": channel((4, 0), (30, 100)), "keyed": MOVE}[name]
    t = np.arange(0, 60, 0.4)
    expected = followed(lambda frames: evaluate([x], frames)[0], 1.7, damping, t, [key.frame for key in x.keys])
    np.testing.assert_allclose(after(x, rule("spring", frequency=1.7, damping=damping), t=t), expected, atol=1e-4 * 1.0)


def test_spring_on_a_step_has_a_closed_form():
    x = channel((0, 0, "hold"), (6, 1))
    f, z = 2.0, 0.15
    omega = 2 * np.pi * f
    s = np.maximum(T - 6, 0) / FPS
    fast = omega * np.sqrt(1 - z**2)
    expected = 1 - np.exp(-z * omega * s) * (np.cos(fast * s) + z * omega / fast * np.sin(fast * s))
    np.testing.assert_allclose(after(x, rule("spring", frequency=f, damping=z)), expected, atol=1e-10)


def test_spring_with_keyed_numbers_and_off_the_grid():
    x = channel((0, 0, "hold"), (6.3, 1))
    eased = rule("spring", frequency=channel((0, 1), (90, 3)), damping=0.2)
    assert np.abs(after(x, eased)).max() < 2.1
    fine = np.arange(0, 90, 0.05)
    np.testing.assert_array_equal(after(x, eased, t=fine)[::20], after(x, eased, t=fine[::20]))
    steady, keyed = rule("spring", frequency=2), rule("spring", frequency=channel((0, 2), (90, 2)))
    np.testing.assert_allclose(after(MOVE, steady), after(MOVE, keyed), atol=1e-9)


def test_a_spring_stands_still_on_what_stands_still():
    np.testing.assert_allclose(after(7.5, rule("spring")), 7.5, atol=1e-9)


# -- noise


def noise(t=T, thing="pod", channels=("x",), **given):
    return after(0.0, rule("noise", channels, **given), t=np.asarray(t, float), thing=thing)


@settings(max_examples=30, deadline=None)
@given(st.integers(0, 10**6), st.integers(1, 8), st.floats(0, 1), st.floats(0.1, 20))
def test_noise_stays_within_its_amplitude(seed, octaves, roughness, frequency):
    values = noise(np.arange(0, 2000, 0.7), amplitude=12, seed=seed, octaves=octaves, roughness=roughness, frequency=frequency)
    assert np.abs(values).max() <= 12


def test_noise_is_smooth_wanders_about_nought_and_fills_its_room():
    t = np.arange(0, 20_000, 0.5)
    values = noise(t, amplitude=1)
    assert abs(values.mean()) < 0.02
    assert 0.15 < values.std() < 0.5
    fine = noise(np.arange(0, 48, 0.001), amplitude=1)
    slopes = np.diff(fine) / 0.001
    assert np.abs(np.diff(slopes)).max() < 0.01, "the slope never jumps"


@pytest.mark.parametrize(("loop", "frequency"), [(48, 1), (37, 2.3), (96, 0.1), (24, 6)])
def test_noise_closes_in_value_and_slope(loop, frequency):
    h = 1e-5
    t = np.array([0, h, loop, loop + h, 3 * loop, 3 * loop + h, 5.5, 5.5 + loop])
    values = noise(t, amplitude=10, frequency=frequency, loop=loop, octaves=3)
    assert values[[2, 4]] == pytest.approx(values[0], abs=1e-9)
    assert values[7] == pytest.approx(values[6], abs=1e-9)
    assert (values[3] - values[2]) / h == pytest.approx((values[1] - values[0]) / h, abs=1e-3)


def test_noise_is_the_same_on_every_machine():
    golden = [0.0874140241175624, 0.09214393665722409, 0.13860304360899484, -0.32063695535006825, 0.203502692415608]
    np.testing.assert_allclose(noise([0, 7, 19, 40, 95], amplitude=1, seed=7), golden, atol=1e-12)


def test_two_channels_have_nothing_to_do_with_each_other():
    t = np.arange(0, 400_000.0, 30)
    one, other, seeded = noise(t), noise(t, thing="seed"), noise(t, seed=2)
    assert abs(np.corrcoef(one, other)[0, 1]) < 0.03
    assert abs(np.corrcoef(one, seeded)[0, 1]) < 0.03


def test_a_keyed_frequency_never_makes_noise_jump():
    values = noise(np.arange(0, 90, 0.01), amplitude=10, frequency=channel((0, 0.2), (45, 5), (90, 0.2)))
    assert np.abs(np.diff(values)).max() < 0.2


# -- smooth and limit


def test_smoothing_a_straight_line_leaves_it_and_a_step_becomes_a_bell_curve():
    line = channel((0, 0), (90, 180), before="coast", after="coast")
    np.testing.assert_allclose(after(line, rule("smooth", frames=6)), plain(line, T), atol=1e-9)
    step = channel((0, 0, "hold"), (40, 1))
    inside = (T > 32) & (T < 48)
    bell = (norm.cdf((T - 40) / 4) - norm.cdf(-2)) / (norm.cdf(2) - norm.cdf(-2))
    np.testing.assert_allclose(after(step, rule("smooth", frames=8))[inside], bell[inside], atol=0.01)
    np.testing.assert_array_equal(after(MOVE, rule("smooth", frames=0)), plain(MOVE, T))


BETWEEN = np.array([30.0, 30.125, 30.4, 30.51, 30.999, 31.0])


def wave(hertz):
    """An oscillation of 1 px and its values at any frames."""
    return rule("oscillator", amplitude=1, frequency=hertz), lambda t: np.sin(2 * np.pi * hertz * t / FPS)


@pytest.mark.parametrize(("hertz", "within"), [(1, 2e-5), (3, 3e-4)])
@pytest.mark.parametrize("frames", [0.3, 0.99, 1, 4, 6.3, 20])
def test_smoothing_is_the_mean_under_a_bell_at_whole_frames_and_between(frames, hertz, within):
    swing, at = wave(hertz)
    apart = np.linspace(-frames, frames, 4001)
    bell = np.exp(-2 * (apart / frames) ** 2)
    exact = simpson(bell * at(BETWEEN[:, None] + apart), x=apart) / simpson(bell, x=apart)
    np.testing.assert_allclose(after(channel((0, 0)), swing, rule("smooth", frames=frames), t=BETWEEN), exact, atol=within)


@pytest.mark.parametrize("frames", [0.3, 1, 4, 6.3, 20])
def test_smoothing_leaves_a_straight_line_between_frames_too(frames):
    line = channel((0, 0), (90, 180), before="coast", after="coast")
    np.testing.assert_allclose(after(line, rule("smooth", frames=frames), t=BETWEEN), 2 * BETWEEN, atol=1e-9)
    widening = channel((0, frames), (90, frames + 2))
    np.testing.assert_allclose(after(line, rule("smooth", frames=widening), t=BETWEEN), 2 * BETWEEN, atol=1e-9)


@given(st.lists(st.floats(-500, 500), min_size=1, max_size=40), st.floats(0.01, 40))
def test_smoothing_frames_together_is_smoothing_each(t, frames):
    one = scene(shape("pod", name="Pod", x=MOVE, rules=[rule("smooth", frames=frames)]), length=96, fps=FPS)
    together = bake(one, np.array(t))["Pod", "x"]
    alone = [bake(one, np.array([frame]))["Pod", "x"][0] for frame in t]
    np.testing.assert_allclose(together, alone, rtol=0, atol=1e-11)


def test_smoothing_reads_each_place_once_for_all_that_lies_between_frames():
    """A spring reads five places in every frame; a smoothing under it reads no more of the card before than for whole frames alone."""
    thing = scene(shape("pod", name="Pod", x=MOVE), length=96).objects[0]
    source = Reader(scene(thing)).keyed([(thing, "x")])
    read: list[float] = []
    smooth = Rule.model_validate(rule("smooth", frames=4))
    watched = source.reading(lambda t: (read.extend(t.ravel()), source.at(t))[1])
    between = (np.arange(40)[:, None] + PLACES).reshape(1, -1)
    smooth.spec.prepare(watched, RuleSettings([smooth], watched), "add")(between)
    assert len(read) == len(set(read)) < 8 * (40 + 2 * 4 + 1)


def limited(values, **given):
    x = channel(*((float(n), float(v)) for n, v in enumerate(values)))
    return after(x, rule("limit", **given), t=np.arange(len(values), dtype=float))


def test_hard_limits():
    np.testing.assert_array_equal(limited([-5, 0, 3, 10], low=-1, high=4), [-1, 0, 3, 4])
    np.testing.assert_array_equal(limited([-5, 10], high=4), [-5, 4])
    np.testing.assert_array_equal(limited([-5, 0, 10], low=3, high=1), [2, 2, 2])


@given(st.floats(-50, 50), st.floats(0, 80), st.floats(0, 40))
def test_soft_limits_are_monotone_and_never_passed(low, width, softness):
    values = np.linspace(-200, 200, 401)
    got = limited(values, low=low, high=low + width, softness=softness)
    assert np.all(np.diff(got) >= -1e-9)
    assert got.min() >= low - 1e-9
    assert got.max() <= low + width + 1e-9
    easy = (values > low + softness) & (values < low + width - softness)
    np.testing.assert_allclose(got[easy], values[easy], atol=1e-9)


# -- all of them

#: Those that can act on x: some look at it themselves.
CHAINED = sorted(
    kind for kind, spec in RULES.items() if spec.value_kind == "number" and spec.joints is None and not spec.dependencies(lambda name: "", "x")
)


@settings(max_examples=40, deadline=None)
@given(channels(), st.lists(st.sampled_from(CHAINED), min_size=1, max_size=4), st.integers(1, 159))
def test_any_chain_is_finite_and_the_same_on_any_grid(x, kinds, few):
    chain = [rule(kind) for kind in kinds]
    fine = np.arange(0, 40, 0.25)
    once = after(x, *chain, t=fine)
    assert np.isfinite(once).all()
    size = 1 + max(abs(key.number) for key in x.keys)
    np.testing.assert_allclose(after(x, *chain, t=fine[::4]), once[::4], atol=1e-7 * size)
    # However far one looks.
    np.testing.assert_allclose(after(x, *chain, t=fine[:few]), once[:few], atol=1e-7 * size)


@pytest.mark.parametrize("kind", ["wind-up", "overshoot"])
@pytest.mark.parametrize("mode", ["loop", "ping-pong", "climb"])
def test_what_comes_after_a_turn_counts_however_far_one_looks(kind, mode):
    """At the last frame of a turn the next move follows at once, whether or not anything beyond is asked for."""
    x = channel((0, 0), (4, 10, "hold"), (8, 10), (12, -20), after=mode)
    frames = np.arange(0, 60.0)
    long = after(x, rule(kind, frames=6, size=0.5), t=frames)
    for count in range(1, 60):
        np.testing.assert_array_equal(after(x, rule(kind, frames=6, size=0.5), t=frames[:count]), long[:count])


def test_the_vine_shows_the_curve_after_each_rule():
    chain = [rule("retime", delay=5), rule("steps", on=False), rule("limit", high=50)]
    one = scene(shape("pod", x=MOVE, rules=[r | {"id": f"r{n}"} for n, r in enumerate(chain)]), length=96)
    steps = explain(one, "pod", "x")
    assert [(step.kind, step.on) for step in steps[2:-1]] == [("retime", True), ("steps", False), ("limit", True)]
    np.testing.assert_allclose(steps[2].values, plain(MOVE, np.arange(96.0) - 5), atol=1e-9)
    np.testing.assert_array_equal(steps[3].values, steps[2].values)
    np.testing.assert_allclose(steps[4].values, np.minimum(steps[2].values, 50))


def test_a_mode_means_something_or_is_refused():
    with pytest.raises(SceneFileError, match="cannot 'multiply'; it can only act as it is"):
        scene(shape("pod", rules=[rule("spring") | {"mode": "multiply"}]))


def test_settings_read_together_are_those_read_alone():
    keyed = {name: channel((0, low), (20, high, "slow-out-in"), (50, low)) for name, low, high in (("stride", 90, 140), ("lift", 2, 40))}
    one = scene(shape("pod"), length=60)
    gait = Rule.model_validate(rule("gait", **keyed, bob=6.0, knee={"base": 0, "formula": "f / 100"}) | {"channels": "keyed"})
    thing = one.by_id["pod"]
    settings = RuleSettings([gait], Reader(one).keyed([(thing, "x")]))
    t = np.linspace(-5, 65, 140)[None, :]
    together = settings.numbers(("stride", "knee", "bob", "lift"), t)
    assert list(together) == ["stride", "knee", "bob", "lift"]
    for name, values in together.items():
        np.testing.assert_array_equal(values, settings.number(name, t), err_msg=name)
