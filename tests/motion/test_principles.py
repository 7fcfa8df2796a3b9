"""The rules of the animation principles: each against its closed form, or the law it must keep."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.special import ellipk

from tests.motion.scenes import channel, channels, scene, shape
from vine_swing.motion import SceneFileError, bake
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.rules import RULES
from vine_swing.motion.scene.graph import followers_of, in_order
from vine_swing.motion.timing.moves import keyed_moves

FPS = 24
T = np.arange(0, 96, 0.25)


def rule(kind, channels, id=None, **given):
    written = {k: v.model_dump(by_alias=True) if hasattr(v, "model_dump") else v for k, v in given.items()}
    return {"id": id or kind, "kind": kind, "channels": list(channels), "settings": written}


def baked(*things, t=T, length=96):
    return bake(scene(*things, length=length, fps=FPS), np.asarray(t, float))


# -- moves


def test_moves_are_found_in_every_turn():
    there_and_back = channel((0, 0), (10, 5), (14, 5), (20, 0), after="loop")
    moves = keyed_moves(there_and_back, 0, 59)
    assert moves.start.tolist() == [0, 14, 20, 34, 40, 54]
    assert moves.change.tolist() == [5, -5] * 3
    assert moves.before.tolist() == [0, 4, 0, 4, 0, 4]
    rocking = keyed_moves(channel((4, 0), (10, 6), after=("ping-pong", 2)), 0, 100)
    assert rocking.start.tolist() == [4, 10, 16]
    assert rocking.change.tolist() == [6, -6, 6]
    assert rocking.after.tolist() == [0, 0, np.inf]


# -- bounce


def drop(t=T, y=100.0, **given):
    return baked(shape("mango", name="Mango", y=y, rules=[rule("bounce", ["y"], **given)]), t=t)["Mango", "y"]


def test_a_drop_is_a_parabola_and_meets_the_floor_on_its_frame():
    t = np.arange(0, 12.01, 0.5)
    np.testing.assert_allclose(drop(t, floor=500, fall=12, keep=0.5), 100 + 400 * (t / 12) ** 2, atol=1e-9)


@pytest.mark.parametrize("keep", [0.1, 0.5, 0.81, 0.97])
def test_bounces_have_their_heights_and_times(keep):
    floor, height, fall, start, r = 500.0, 400.0, 10.0, 7.0, np.sqrt(keep)
    k = np.arange(1, 8)
    contacts = start + fall + np.append(0.0, np.cumsum(2 * fall * r ** np.arange(1, 8)))
    apexes = contacts[:-1] + fall * r**k
    np.testing.assert_allclose(drop(apexes, floor=floor, fall=fall, keep=keep, start=start), floor - height * keep**k, atol=1e-9)
    np.testing.assert_allclose(drop(contacts, floor=floor, fall=fall, keep=keep, start=start), floor, atol=1e-6)
    end = start + fall * (1 + 2 * r / (1 - r))
    np.testing.assert_allclose(drop([end, end + 1, end + 1000], floor=floor, fall=fall, keep=keep, start=start), floor, atol=1e-6)
    one = scene(shape("mango", y=100, rules=[rule("bounce", ["y"], floor=floor, fall=fall, keep=keep, start=start)]))
    reported = Reader(one).contacts("mango")
    np.testing.assert_allclose(reported[:8], contacts[: len(reported)], atol=1e-9)
    assert height * keep ** len(reported) < 0.1, "what can be seen is reported"


def test_by_physics_the_fall_follows_from_the_height():
    seconds = np.sqrt(2 * 400 / 2000)
    np.testing.assert_allclose(drop([seconds * FPS], floor=500, gravity=2000, keep=0), 500, atol=1e-9)
    assert drop([seconds * FPS / 2], floor=500, gravity=2000)[0] == pytest.approx(200)


@given(st.floats(-500, 500), st.floats(0.5, 40), st.floats(0, 0.98), st.integers(0, 30))
def test_energy_never_grows(height, fall, keep, start):
    y = drop(np.arange(0, 400, 0.5), y=500 - height, floor=500, fall=fall, keep=keep, start=start)
    assert np.isfinite(y).all()
    assert (np.sign(height) * (500 - y) >= -1e-6).all()
    assert (np.abs(500 - y) <= abs(height) + 1e-6).all()


def test_across_it_drifts_and_friction_halves_its_speed():
    def drift(**given):
        one = rule("bounce", ["y", "x"], start=12, **given)
        return baked(shape("mango", name="Mango", x=50, y=100, rules=[one]))["Mango", "x"]

    seconds = np.maximum(T - 12, 0) / FPS
    np.testing.assert_allclose(drift(), 50, atol=1e-12)
    np.testing.assert_allclose(drift(across=120), 50 + 120 * seconds, atol=1e-9)
    np.testing.assert_allclose(drift(across=120, friction=0.5), 50 + 120 * 0.5 / np.log(2) * (1 - 2 ** (-seconds / 0.5)), atol=1e-9)


# -- pendulum


def swing(t=T, **given):
    return baked(shape("satchel", name="Satchel", rules=[rule("pendulum", ["rotation"], **given)]), t=t)["Satchel", "rotation"]


@pytest.mark.parametrize("angle", [1, 30, 90, 150, 178, -60])
def test_a_pendulum_has_the_period_of_the_elliptic_integral(angle):
    length, gravity = 150.0, 900.0
    period = 4 * np.sqrt(length / gravity) * ellipk(np.sin(np.radians(angle) / 2) ** 2) * FPS
    np.testing.assert_allclose(
        swing(period * np.array([0, 0.25, 0.5, 1, 3]), length=length, gravity=gravity, angle=angle, damping=0),
        np.array([1, 0, -1, 1, 1]) * angle,
        atol=1e-6,
    )


def test_small_swings_are_a_cosine():
    np.testing.assert_allclose(swing(length=245, gravity=980, angle=0.01, damping=0), 0.01 * np.cos(2 * T / FPS), atol=1e-9)


@pytest.mark.parametrize(("angle", "damping"), [(40, 0.1), (170, 0.05), (80, 1.5), (-120, 0.0001)])
def test_a_damped_pendulum_agrees_with_scipy(angle, damping):
    length, gravity, start = 180.0, 1000.0, 10.0
    stiff = gravity / length
    solved = solve_ivp(
        lambda s, z: [z[1], -stiff * np.sin(z[0]) - 2 * damping * np.sqrt(stiff) * z[1]],
        (0, 4),
        [np.radians(angle), 0],
        rtol=1e-11,
        atol=1e-11,
        dense_output=True,
    )
    expected = np.where(start >= T, angle, np.degrees(solved.sol(np.maximum(T - start, 0) / FPS)[0]))
    np.testing.assert_allclose(swing(length=length, gravity=gravity, angle=angle, damping=damping, start=start), expected, atol=1e-4)


@pytest.mark.parametrize("some", [{}, {"start": 7}, {"length": channel((0, 90), (60, 200))}])
def test_pendulums_that_swing_alike_swing_as_each_alone(some):
    given = [{"angle": 40, "damping": 0.1} | some, {"angle": -70}, {"angle": 40, "damping": 0.1}] * 8
    things = [shape(f"pod{n}", rules=[rule("pendulum", ["rotation"], **one)]) for n, one in enumerate(given)]
    together = baked(*things, t=T)
    for n, one in enumerate(given):
        np.testing.assert_allclose(together[f"Pod{n}", "rotation"], swing(**one), atol=1e-9)


def test_a_keyed_length_that_never_changes_is_a_length():
    still = channel((0, 150), (90, 150))
    np.testing.assert_allclose(swing(length=still, angle=100, damping=0), swing(length=150, angle=100, damping=0), atol=1e-5)


# -- squash and stretch

FALLING = channel((0, 100, {"bezier": [0.5, 0, 1, 0.6]}), (12, 500), (20, 500))
SOFT = rule("squash-stretch", ["stretch", "stretch.angle"], amount=0.5, full_speed=40, impact=0.6, recover=6)


def test_a_fall_is_drawn_out_along_its_way_and_flat_where_it_hits():
    one = baked(shape("mango", name="Mango", y=FALLING, rules=[SOFT]), t=np.arange(0, 20.0))
    stretch, angle = one["Mango", "stretch"], one["Mango", "stretch.angle"]
    assert stretch[0] == pytest.approx(1)
    assert (np.diff(stretch[:11]) >= 0).all(), "longer as it gets faster"
    assert angle[10] == pytest.approx(90)
    # At the contact it is wide: drawn out across its way.
    assert angle[12] % 180 == pytest.approx(0, abs=1e-6)
    assert stretch[12] == pytest.approx(1.6, rel=0.02)
    np.testing.assert_allclose(stretch[18:], 1, atol=1e-9)


@settings(max_examples=40, deadline=None)
@given(channels(most=4), channels(most=4))
def test_the_area_is_kept_and_the_limit_too(x, y):
    one = bake(
        scene(shape("mango", x=x, y=y, rules=[rule("squash-stretch", ["stretch", "stretch.angle"], amount=3, impact=3, limit=1.8)]), length=30),
        T[:120],
    )
    stretch = one["Mango", "stretch"]
    assert ((stretch >= 1 / 1.8 - 1e-9) & (stretch <= 1.8 + 1e-9)).all()
    linear = one.objects["mango"].local
    np.testing.assert_allclose(np.broadcast_to(linear[:, 0] * linear[:, 3] - linear[:, 1] * linear[:, 2], len(one.frames)), 1, atol=1e-9)


def test_what_may_breathe_lets_go_of_its_area():
    def area(breathe, t):
        acts = ["stretch", "stretch.angle", "scale.x", "scale.y"]
        soft = SOFT | {"channels": acts, "settings": SOFT["settings"] | {"breathe": breathe}}
        local = baked(shape("mango", name="Mango", y=FALLING, rules=[soft]), t=t).objects["mango"].local
        return (local[:, 0] * local[:, 3] - local[:, 1] * local[:, 2])[0], np.linalg.svd(local[0, :4].reshape(2, 2), compute_uv=False)

    assert area(0.0, [11.0])[0] == pytest.approx(1, abs=1e-9)
    grown, (long, thin) = area(1.0, [11.0])
    assert grown > 1.2
    assert thin == pytest.approx(1, abs=1e-9), "longer but not thinner"
    flat, (wide, low) = area(1.0, [12.0])
    assert flat < 0.9
    assert wide == pytest.approx(1, abs=1e-9), "flat but not wider"
    assert long > 1 > low


def test_the_deformation_never_jumps_where_a_way_turns():
    circling = {"kind": "oscillator", "channels": ["x"], "settings": {"amplitude": 100, "frequency": 1}, "id": "a"}
    rising = circling | {"id": "b", "channels": ["y"], "settings": {"amplitude": 100, "frequency": 1, "phase": 90}}
    one = baked(shape("bee", name="Bee", rules=[circling, rising, SOFT]), t=np.arange(1, 40, 0.05))
    log, twice = np.log(one["Bee", "stretch"]), 2 * np.radians(one["Bee", "stretch.angle"])
    assert np.abs(np.diff(log * np.cos(twice))).max() < 0.02
    assert np.abs(np.diff(log * np.sin(twice))).max() < 0.02
    assert log.std() < 1e-3, "a steady speed is a steady stretch"


def test_what_jumps_from_place_to_place_is_not_drawn_out():
    one = baked(shape("frog", name="Frog", x=channel((0, 0, "hold"), (10, 300, "hold"), (20, 0)), rules=[SOFT]))
    np.testing.assert_allclose(one["Frog", "stretch"], 1, atol=1e-9)


def test_a_bounce_squashes_at_its_contacts_even_without_keys():
    rules = [rule("bounce", ["y"], floor=500, fall=10, keep=0.5), SOFT]
    one = baked(shape("mango", name="Mango", y=100, rules=rules), t=[9.0, 10.0])
    assert one["Mango", "stretch.angle"][0] % 180 == pytest.approx(90)
    assert one["Mango", "stretch.angle"][1] % 180 == pytest.approx(0, abs=1e-6)


# -- wind-up, overshoot, exaggerate, arc

MOVE = channel((12, 0, "slow-out-in"), (24, 100), (60, 100, "slow-out-in"), (72, 20))


@pytest.mark.parametrize("kind", ["wind-up", "overshoot", "arc"])
@given(x=channels(least=2, most=5), y=channels(least=2, most=4))
@settings(max_examples=30, deadline=None)
def test_keys_are_never_moved(kind, x, y):
    acts = ["x", "y"] if kind == "arc" else ["x"]
    frames = np.array([key.frame for key in x.keys])
    plain = bake(scene(shape("pod", x=x, y=y)), frames)["Pod", "x"]
    changed = bake(scene(shape("pod", x=x, y=y, rules=[rule(kind, acts)])), frames)["Pod", "x"]
    size = 1 + max(abs(key.number) for one in (x, y) for key in one.keys)
    if kind == "arc":
        # x is only sure to be on its key where y has one too: at the first and the last that both have.
        both = np.isin(frames, [key.frame for key in y.keys])
        plain, changed = plain[both], changed[both]
    np.testing.assert_allclose(changed, plain, atol=1e-6 * size)


def wound(kind, x=MOVE, t=T, **given):
    return baked(shape("pod", name="Pod", x=x, rules=[rule(kind, ["x"], **given)]), t=t)["Pod", "x"]


def test_a_wind_up_dips_before_each_move_by_its_share():
    fine = np.arange(0, 96, 0.01)
    values = wound("wind-up", t=fine, size=0.25, frames=9)
    assert values[(fine > 0) & (fine < 12)].min() == pytest.approx(-25, abs=1e-3)
    assert fine[np.argmin(values[fine < 12])] == pytest.approx(3 + 6, abs=0.02)
    assert values[(fine > 51) & (fine < 60)].max() == pytest.approx(100 + 20, abs=1e-3)
    np.testing.assert_array_equal(values[(fine < 3) | ((fine > 24) & (fine < 51))], plain(MOVE, fine)[(fine < 3) | ((fine > 24) & (fine < 51))])
    at_once = wound("wind-up", channel((0, 0), (20, 100)), t=fine, size=0.5, frames=8)
    assert at_once.min() < -5, "where nothing is still before it, it dips as it begins"


def plain(x, t):
    return baked(shape("pod", name="Pod", x=x), t=t)["Pod", "x"]


def test_an_overshoot_passes_its_key_and_settles():
    fine = np.arange(0, 96, 0.01)
    values = wound("overshoot", t=fine, size=0.2, frames=20, settles=3)
    after = values[(fine > 24) & (fine < 44)] - 100
    assert after.max() == pytest.approx(20, abs=1e-3)
    assert np.count_nonzero(np.diff(np.sign(after))) == 2
    assert after.min() > -20
    np.testing.assert_array_equal(values[(fine > 44) & (fine < 60)], 100)


def test_shares_adapt_when_keys_change():
    def twice(one):
        return channel(*((key.frame, key.number * 2, key.ease) for key in one.keys))

    for kind in ("wind-up", "overshoot"):
        np.testing.assert_allclose(wound(kind, twice(MOVE)), 2 * wound(kind), atol=1e-9)


def test_exaggerate_pushes_from_the_middle_or_the_base():
    rocking = channel((0, -10), (10, 30), after="ping-pong")
    t = np.arange(0, 95.0)
    mean = plain(rocking, np.linspace(0, 95, 95 * 4 + 1)).mean()
    np.testing.assert_allclose(wound("exaggerate", rocking, t, amount=2), mean + 2 * (plain(rocking, t) - mean), atol=1e-9)
    based = rocking.copy_with(base=5.0)
    np.testing.assert_allclose(wound("exaggerate", based, t, amount=3, about="base"), 5 + 3 * (plain(rocking, t) - 5), atol=1e-9)
    np.testing.assert_allclose(wound("exaggerate", rocking, t, amount=1), plain(rocking, t), atol=1e-9)


@pytest.mark.parametrize(("side", "sign"), [("left", 1), ("right", -1)])
def test_an_arc_is_a_parabola_over_the_straight_way(side, sign):
    x, y = channel((0, 100, "slow-out-in"), (24, 500)), channel((0, 400, "slow-out-in"), (24, 100))
    t = np.arange(0, 24.01, 0.5)
    straight = baked(shape("pod", name="Pod", x=x, y=y), t=t)
    bent = baked(shape("pod", name="Pod", x=x, y=y, rules=[rule("arc", ["x", "y"], bulge=0.3, side=side)]), t=t)
    p = (straight["Pod", "x"] - 100) / 400
    np.testing.assert_allclose(bent["Pod", "x"] - straight["Pod", "x"], sign * 0.3 * -300 * 4 * p * (1 - p), atol=1e-6)
    np.testing.assert_allclose(bent["Pod", "y"] - straight["Pod", "y"], sign * 0.3 * -400 * 4 * p * (1 - p), atol=1e-6)


# -- roll and face


def rolled(t=T, radius=40.0, **moves):
    return baked(shape("nut", name="Nut", rules=[rule("roll", ["rotation"], radius=radius)], **moves), t=t)["Nut", "rotation"]


def test_a_nut_turns_once_a_circumference():
    there = channel((0, 100, "slow-out-in"), (40, 100 + 2 * np.pi * 40), (80, 100, "snap"), (95, 300))
    x = plain(there, T)
    np.testing.assert_allclose(np.radians(rolled(x=there)) * 40, x - x[0], atol=1e-9)
    assert rolled([40.0], x=there)[0] == pytest.approx(360)


def test_it_rolls_along_slopes_and_back():
    x, y = channel((0, 0), (30, 300), after="ping-pong"), channel((0, 0), (30, 400), after="ping-pong")
    way = 500 * (1 - np.abs(T / 30 % 2 - 1))
    np.testing.assert_allclose(np.radians(rolled(x=x, y=y)) * 40, way, atol=1e-8)


def test_along_a_path_forward_is_forward():
    loop = [[400, 300], [200, 100], [100, 300], [400, 350]]
    path = {"keys": [{"frame": 20 * n, "value": point, "way": "spline"} for n, point in enumerate(loop)], "after": {"mode": "ping-pong"}}
    one = shape("nut", name="Nut", rules=[rule("roll", ["rotation"], radius=40)])
    one["channels"]["path"] = path
    found = baked(one, t=np.arange(0, 90.0))["Nut", "rotation"]
    assert (np.diff(found[:61]) > 0).all(), "it goes left, and forward all the same"
    assert (np.diff(found[61:]) < 0).all(), "back it turns back"


def faced(t=T, thing="leaf", others=(), mode="replace", **given):
    moves = {name: given.pop(name) for name in ("x", "y") if name in given}
    facing = rule("face", ["rotation"], **given) | {"mode": mode}
    return baked(shape("leaf", name="Leaf", rules=[facing], **moves), *others, t=t)["Leaf", "rotation"]


def test_a_leaf_points_where_it_goes_without_a_jump():
    circle = np.arange(0, 95.0, 0.5)
    rules = [
        {"id": "a", "kind": "oscillator", "channels": ["x"], "settings": {"amplitude": 100, "frequency": 1}},
        {"id": "b", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": 100, "frequency": 1, "phase": 90}},
        rule("face", ["rotation"], offset=10) | {"mode": "replace"},
    ]
    found = baked(shape("leaf", name="Leaf", rules=rules), t=circle)["Leaf", "rotation"]
    # x = sin, y = cos: it goes to the right at first and turns anticlockwise on the screen.
    np.testing.assert_allclose(found, 10 - 360 * circle / FPS, atol=0.2)


def test_at_rest_it_keeps_its_direction_and_before_it_moves_has_it_already():
    x = channel((20, 0), (30, 0), (40, 0))
    y = channel((20, 100), (30, 0), (40, 0))
    np.testing.assert_allclose(faced(x=x, y=y), -90, atol=1e-6)
    assert faced(x=5.0, y=5.0).tolist() == [0] * len(T)


def test_it_faces_another_object():
    target = shape("bee", name="Bee", x=channel((0, 100), (20, 0), (40, -100)), y=channel((0, 0), (20, 100), (40, 0)))
    found = faced([0, 10, 20, 40], others=[target], target="bee")
    np.testing.assert_allclose(found, [0, 45, 90, 180], atol=1e-6)
    spring = faced(others=[target], target="bee", smooth=4)
    assert np.abs(np.diff(spring)).max() < 3
    assert faced(target="").tolist() == [0] * len(T)


# -- follow


def test_a_follower_does_the_same_later():
    body = shape("body", name="Body", x=MOVE)
    tail = shape("tail", name="Tail", x=7.0, rules=[rule("follow", ["x"], leader="body", delay=5)])
    found = baked(tail, body)
    np.testing.assert_allclose(found["Tail", "x"], 7 + plain(MOVE, T - 5), atol=1e-12)
    half = shape("tail", name="Tail", rules=[rule("follow", ["x"], leader="body", delay=5, share=0.5)])
    np.testing.assert_allclose(baked(half, body)["Tail", "x"], 0.5 * plain(MOVE, T - 5), atol=1e-12)


def test_a_sprung_follower_is_a_spring_on_the_leader():
    body = shape("body", name="Body", x=MOVE)
    tail = shape("tail", name="Tail", rules=[rule("follow", ["x"], leader="body", delay=0, spring=2.0, damping=0.3)])
    alone = wound("spring", frequency=2.0, damping=0.3)
    np.testing.assert_allclose(baked(tail, body)["Tail", "x"], alone, atol=1e-9)


def chain(links, **given):
    body = shape("l0", name="L0", x=MOVE)
    tail = [shape(f"l{n}", name=f"L{n}", rules=[rule("follow", ["x"], leader=f"l{n - 1}", delay=2, **given)]) for n in range(1, links + 1)]
    return [*reversed(tail), body]


def test_a_chain_adds_up_and_is_baked_in_order():
    found = baked(*chain(12))
    np.testing.assert_allclose(found["L12", "x"], plain(MOVE, T - 24), atol=1e-9)
    one = scene(*chain(3))
    assert list(in_order(one)) == [("l1", "x"), ("l2", "x"), ("l3", "x")]
    assert followers_of(one, [("l1", "x")]) == {("l1", "x"), ("l2", "x"), ("l3", "x")}


def test_a_change_reaches_all_that_follow_and_nothing_else():
    one = scene(*chain(3), shape("stone", x=4), length=96)
    first = bake(one)
    moved = one.copy_with(objects=tuple(t.copy_with(channels={"x": channel((0, 0), (9, 50))}) if t.id == "l0" else t for t in one.objects))
    second = bake(moved, previous=first)
    for name in ("l1", "l2", "l3"):
        np.testing.assert_array_equal(second.objects[name].channels["x"], bake(moved).objects[name].channels["x"])
    assert second.objects["stone"] is first.objects["stone"]
    still = bake(one.copy_with(name="Other"), previous=first)
    assert all(still.objects[name] is first.objects[name] for name in first.objects)


def test_rings_are_refused_with_their_chain():
    a = shape("a", name="Ant", rules=[rule("follow", ["x"], leader="b")])
    b = shape("b", name="Bee", rules=[rule("follow", ["x"], leader="a")])
    with pytest.raises(SceneFileError, match="read each other in a ring: .*(Ant.x ← Bee.x ← Ant.x|Bee.x ← Ant.x ← Bee.x)"):
        scene(a, b)
    with pytest.raises(SceneFileError, match="ring"):
        scene(shape("a", rules=[rule("face", ["x"])]))


def test_a_leader_that_is_gone_leads_nobody():
    tail = shape("tail", name="Tail", x=MOVE, rules=[rule("follow", ["x"], leader="nobody")])
    np.testing.assert_array_equal(baked(tail)["Tail", "x"], plain(MOVE, T))


# -- laws of all rules


ALL = sorted(kind for kind, spec in RULES.items() if spec.value_kind == "number" and spec.joints is None)


@pytest.mark.parametrize("kind", ALL)
@given(x=channels(most=4), y=channels(most=3))
@settings(max_examples=15, deadline=None)
def test_every_rule_is_finite_whatever_it_is_put_on(kind, x, y):
    acts = RULES[kind].for_channels or ("x", "rotation")
    one = scene(shape("pod", x=x, y=y, rotation=3.0, rules=[rule(kind, acts)]), length=48)
    values = bake(one, T[:100])
    assert all(np.isfinite(values["Pod", name]).all() for name in acts)


@pytest.mark.parametrize("kind", ALL)
def test_every_rule_gives_the_same_however_finely_it_is_read(kind):
    acts = RULES[kind].for_channels or ("x",)
    settings = {name: value for name, value in RULES[kind].example.items() if name != "leader"}
    one = scene(shape("pod", x=MOVE, y=channel((0, 50), (30, 200), (60, 80)), rules=[rule(kind, acts, **settings)]), length=96)
    coarse, fine = bake(one, np.arange(0, 96.0)), bake(one, np.arange(0, 96.0, 0.25))
    for name in acts:
        np.testing.assert_allclose(fine["Pod", name][::4], coarse["Pod", name], atol=1e-9)
