"""The object matrix, against the product of its factors written out."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.basics import matrix

angle = st.floats(-720, 720)
size = st.floats(-3, 3).filter(lambda v: abs(v) > 0.05)
offset = st.floats(-500, 500)


def factor(a, b, c, d, e=0.0, f=0.0):
    return np.array([[a, c, e], [b, d, f], [0, 0, 1]])


def turn(degrees):
    r = np.radians(degrees)
    return factor(np.cos(r), np.sin(r), -np.sin(r), np.cos(r))


@given(offset, offset, angle, size, size, st.floats(-60, 60), offset, offset, st.floats(0.2, 5), angle)
def test_the_object_matrix_is_the_product_in_the_design(x, y, rotation, sx, sy, skew, px, py, stretch, along):
    values = {"x": x, "y": y, "rotation": rotation, "scale.x": sx, "scale.y": sy, "skew": skew}
    values |= {"pivot.x": px, "pivot.y": py, "stretch": stretch, "stretch.angle": along}
    got = matrix.object_matrix({name: np.array([value]) for name, value in values.items()})[0]
    wanted = (
        factor(1, 0, 0, 1, x, y)
        @ turn(along)
        @ factor(stretch, 0, 0, 1 / stretch)
        @ turn(-along)
        @ turn(rotation)
        @ factor(1, 0, np.tan(np.radians(skew)), 1)
        @ factor(sx, 0, 0, sy)
        @ factor(1, 0, 0, 1, -px, -py)
    )
    np.testing.assert_allclose(got, [wanted[0, 0], wanted[1, 0], wanted[0, 1], wanted[1, 1], wanted[0, 2], wanted[1, 2]], atol=1e-8)
    assert matrix.inverse(matrix.multiply(got[None], matrix.inverse(got[None])))[0] == pytest.approx([1, 0, 0, 1, 0, 0], abs=1e-6)


@given(st.floats(0.2, 5), angle)
def test_stretch_keeps_the_area(stretch, along):
    a, b, c, d = matrix.linear_part(*(np.array([v]) for v in (30.0, 0.0, 2.0, 0.5, stretch, along)))
    assert float((a * d - b * c)[0]) == pytest.approx(1, abs=1e-9)


def test_a_rotation_is_clockwise_about_the_pivot():
    baked = bake(scene(shape("arm", x=100, y=100, rotation=90, pivot_x=-50)))
    assert matrix.apply(baked.objects["arm"].world, np.array([50.0]), np.array([0.0]))[0] == pytest.approx([100, 200])


def test_children_go_where_their_parents_take_them_whatever_the_order():
    hand = shape("hand", parent="arm", x=10, y=0, rotation=channel((0, 0), (10, 90)))
    arm = shape("arm", parent="body", x=0, y=20, rotation=90)
    body = shape("body", x=channel((0, 100), (10, 200)), y=50, scale_x=2, scale_y=2)
    baked = bake(scene(hand, arm, body, length=11))
    # Arm's 10 to the right is 10 down after its quarter turn, doubled by the body.
    np.testing.assert_allclose(baked.objects["hand"].place[[0, 10]], [[100, 50 + 40 + 20], [200, 110]], atol=1e-9)
    np.testing.assert_allclose(matrix.rotation_of(baked.objects["hand"].world)[[0, 5, 10]], [90, 135, 180])


def test_fading_is_inherited_and_kept_within_bounds():
    parent = shape("parent", opacity=channel((0, 0.5), (10, 0.8, "overshoot")))
    baked = bake(scene(shape("child", parent="parent", opacity=0.5), shape("loud", opacity=1.0), parent, length=11))
    np.testing.assert_allclose(baked.objects["child"].opacity[[0, 10]], [0.25, 0.4])
    assert baked.objects["loud"].opacity.tolist() == [1]


def test_what_cannot_be_a_stretch_is_kept_from_breaking_the_matrix():
    # An easing below 0 on its way must not turn the picture inside out or divide by nothing.
    baked = bake(scene(shape("jelly", stretch=channel((0, 1, {"bezier": [0.3, -6, 0.7, -6]}), (10, 1.2)), skew=400), length=11))
    assert np.isfinite(baked.objects["jelly"].world).all()


def test_stacks_are_worked_out_as_one_by_one():
    rng = np.random.default_rng(3)
    one, stack, points = rng.uniform(-2, 2, (7, 6)), rng.uniform(-2, 2, (4, 7, 6)), rng.uniform(-9, 9, (2, 4, 7))
    for left, right in ((one, stack), (stack, one), (stack, stack)):
        found = matrix.multiply(left, right)
        for n in range(4):
            np.testing.assert_array_equal(found[n], matrix.multiply(left[n] if left.ndim == 3 else left, right[n] if right.ndim == 3 else right))
    for n in range(4):
        np.testing.assert_array_equal(matrix.apply(one, *points)[n], matrix.apply(one, points[0, n], points[1, n]))
        np.testing.assert_array_equal(matrix.apply(stack, *points)[n], matrix.apply(stack[n], points[0, n], points[1, n]))
        np.testing.assert_array_equal(
            matrix.apply(stack, points[0, :, :1], points[1, :, :1])[n], matrix.apply(stack[n], points[0, n, :1], points[1, n, :1])
        )


def test_where_a_thing_is_does_not_depend_on_one_that_grew_out_of_reach():
    def chain(name, sizes):
        parents = [None, *(f"{name}{n}" for n in range(len(sizes) - 1))]
        links = zip(sizes, parents, strict=True)
        return [shape(f"{name}{n}", x=3, scale_x=size, scale_y=size) | {"parent": parent} for n, (size, parent) in enumerate(links)]

    large = chain("large", [1e4] * 5 + [1.0] * 85)
    endless = chain("endless", [1e4] * 90)
    alone, beside = bake(scene(*large)), bake(scene(*large, *endless))
    assert np.isfinite(beside.objects["endless89"].world).all()
    assert alone.objects["large89"].world.max() > 1e15, "farther than what is cut off"
    np.testing.assert_array_equal(alone.objects["large89"].world, beside.objects["large89"].world)


def test_products_of_pairs_are_those_of_each_pair():
    rng = np.random.default_rng(4)
    moving, still, shared = rng.uniform(-2, 2, (7, 6)), rng.uniform(-2, 2, (1, 6)), rng.uniform(-2, 2, (7, 6))
    lefts, rights = [shared, still, shared, moving, still], [moving, moving, still, shared, still]
    for found, left, right in zip(matrix.products(lefts, rights), lefts, rights, strict=True):
        np.testing.assert_array_equal(found, matrix.multiply(left, right))
    assert matrix.products([], []) == []
