"""Rehearsals of shipped scenes: other versions, to be compared with what is shipped."""

from demo import signal_tree
from demo.build import Data


def soft_flags() -> Data:
    """The signal tree with flags that are let down softly: nothing in it comes to a hard stop."""
    scene = signal_tree.make()
    for obj in scene["objects"]:
        if obj["name"] in ("Red flag", "Green flag"):
            for key in obj["channels"]["y"]["keys"]:
                if key["frame"] == 24:
                    key["ease"] = "slow-out-in"
    return scene


#: File name of a shipped scene → the name of a version of it, and what makes that.
TAKES = {"11-signal-tree": ("Soft flags", soft_flags)}
