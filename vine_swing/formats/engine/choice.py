"""Which engine paints: the processes of this machine, or a farm of machines where the address of its scheduler is given."""

from vine_swing.formats.engine.engine import Engine
from vine_swing.formats.engine.pool import Pool


def engine_at(farm: str | None) -> Engine:
    """The engine for an address; None for this machine.

    Raises:
        MotionError: if there is no farm at the address, or what reaches it is not installed.
    """
    if farm is None:
        return Pool()
    from vine_swing.formats.engine.farm import Farm

    return Farm(farm)
