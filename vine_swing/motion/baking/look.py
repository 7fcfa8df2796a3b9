"""The rules on an object's look with their settings over the frames."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.rule import Rule

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class BakedLook:
    """One rule on a look.

    values: its settings by name, (n,) or (1,), colours (n, 4) or (1, 4), sRGB with alpha 0…1.
    derived: values computed from them, by name; see `RuleSpec.derived`.
    made_from: the place of its object that `derived` was made from; None where nothing was.
    """

    rule: Rule
    values: Mapping[str, Array]
    derived: Mapping[str, Array]
    made_from: Array | None = None

    @property
    def arrays(self) -> dict[str, Array]:
        """All of its arrays, by their names on the object: `rule:setting`."""
        return {f"{self.rule.id}:{name}": values for name, values in (*self.values.items(), *self.derived.items())}
