"""Arrays on the wire: float32 numbers in their order, whatever they were cut from, within the range of float32."""

import msgpack
import numpy as np

from vine_swing.service import wire


def sent(*arrays):
    """The arrays as a page would read them from a message."""
    packer = wire.Arrays()
    places = [packer.add(values) for values in arrays]
    packer.fill()
    return [(one["w"], np.frombuffer(one["d"], "<f4").tolist()) for one in msgpack.unpackb(wire.pack(places))]


def test_numbers_come_in_their_order_row_by_row():
    block = np.arange(24.0).reshape(4, 6)
    assert sent(np.array([1.5, -2.0]), block, block[:, 4:6], block.T[:2].T, np.empty(0)) == [
        (1, [1.5, -2.0]),
        (6, block.ravel().tolist()),
        (2, [4, 5, 10, 11, 16, 17, 22, 23]),
        (2, [0, 1, 6, 7, 12, 13, 18, 19]),
        (1, []),
    ]


def test_what_float32_cannot_hold_is_cut_to_its_range():
    most = float(np.finfo(np.float32).max)
    assert sent(np.array([1e300, -1e300, np.inf, -np.inf, np.nan, 0.25])) == [(1, [most, -most, most, -most, 0.0, 0.25])]


def test_nothing_to_send_is_no_fault():
    assert sent() == []
