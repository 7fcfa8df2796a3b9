"""Polynomials through the places of cells, against the polynomials they were read from."""

import numpy as np

from vine_swing.motion.basics.gauss import PLACES, polynomials

ROWS, CELLS = 7, 9


def test_a_polynomial_of_degree_four_is_found_again():
    made = np.random.default_rng(4).normal(size=(5, ROWS, CELLS))
    values = sum(made[k][..., None] * PLACES**k for k in range(5)).reshape(ROWS, -1)
    np.testing.assert_allclose(polynomials(values), made, atol=1e-11)


def test_a_row_is_rounded_alike_alone_and_however_it_lies_in_memory():
    values = np.random.default_rng(5).normal(size=(ROWS, CELLS * len(PLACES)))
    together = polynomials(np.asfortranarray(values))
    for row in range(ROWS):
        np.testing.assert_array_equal(polynomials(values[row : row + 1])[:, 0], together[:, row])


def test_no_place_lies_on_an_end_of_its_cell():
    assert 0 < PLACES.min() < PLACES.max() < 1
    np.testing.assert_allclose(PLACES, 1 - PLACES[::-1], atol=1e-15)
