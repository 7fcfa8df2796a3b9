"""The simulation of a farm against what can be told without it: whatever is slowest sets the pace."""

import pytest

from tests.bench.farm import AT_ONCE, Costs, simulated

COSTS = Costs(paint=0.1, encode=0.0, packed=1e5, task=0.0, scene=0.0, ready=0.0)


@pytest.mark.parametrize("workers", [1, 3, 10])
def test_painting_sets_the_pace_where_it_is_slowest(workers):
    assert simulated(workers, COSTS, 1e12, length=40_000) == pytest.approx(workers / 0.1, rel=0.01)


def test_the_network_or_the_encoder_sets_it_where_they_are():
    assert simulated(100, COSTS, 1e6, length=10_000) == pytest.approx(10, rel=0.01)
    slow = Costs(paint=0.1, encode=0.05, packed=1e5, task=0.0, scene=0.0, ready=0.0)
    assert simulated(100, slow, 1e12, length=10_000) == pytest.approx(20, rel=0.01)


def test_one_task_takes_all_that_lies_on_its_way():
    one = Costs(paint=0.1, encode=0.2, packed=1e6, task=0.01, scene=2e6, ready=0.5)
    seconds = 2 + 0.5 + AT_ONCE * (0.1 + 1 + 0.2)
    assert simulated(1, one, 1e6, length=AT_ONCE) == pytest.approx(AT_ONCE / seconds)
