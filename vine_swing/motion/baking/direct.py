"""Channels that can be computed at the frames of a bake directly, without a chain of cards: most links, and all joints of a figure that walks."""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.keyed import kind_of, plain_value
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.rules import link
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.rule import Rule, RuleSettings
from vine_swing.motion.scene.graph import Ref, resolved
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]


class DirectReader:
    """Reads what needs no chain; the channels that one rule computes together are kept."""

    def __init__(self, reader: Reader) -> None:
        self._reader = reader
        self._together: dict[str, Mapping[str, Array]] = {}
        #: Whether limbs of figures are free at any frame, by the id of the figure and their own.
        self._free: dict[tuple[str, str], bool] = {}

    def read(self, obj: SceneObject, name: str, reads: Sequence[Ref]) -> Array | None:
        """A channel at `grid`, where nothing keys it and a single rule acts on it whose work needs no chain of cards: a link that reads what is known
        there, or a rule that computes all its channels together. None for any other; the result is that of the chain. `reads` is
        all the channel looks at."""
        rules = obj.rules_on(name)
        if len(rules) != 1 or kind_of(obj, name) != "still" or obj.specs[name].is_colour:
            return None
        if rules[0].kind == link.SPEC.kind:
            return self._linked(obj, name, rules[0], reads)
        if rules[0].spec.together is None:
            return None
        limb = obj.id, name.partition(".")[0]
        if limb not in self._free:
            free = self._reader.after[obj.id].get(f"{limb[1]}.free")
            self._free[limb] = free is not None and bool(free.any())
        if self._free[limb]:
            return None
        if obj.id not in self._together:
            source = self._reader.keyed([(obj, name)])
            self._together[obj.id] = rules[0].spec.together(source, RuleSettings(rules, source), self._reader.grid)
        added, still = self._together[obj.id].get(name), plain_value(obj, name)
        if added is None:
            return np.full(self._reader.grid.shape[1], still)
        return added * still if name == FACING else added + still

    def _linked(self, obj: SceneObject, name: str, rule: Rule, reads: Sequence[Ref]) -> Array | None:
        """A channel made by one link from what is known at `grid`; None if the formula reads anything else."""
        formula = rule.word("formula")
        node = link.tree_of(formula)
        if node is None:
            return None
        cached: dict[str, Array] = {}
        named = link.references_in(formula)
        for item in named:
            # With a single reference that reads a single channel, the look-up by name can be skipped.
            ref = reads[0] if len(named) == len(reads) == 1 else resolved(self._reader.scene, (NAMED, item.text))
            values = self._reader.after.get(ref[0], {}).get(ref[1]) if ref is not None and ref not in self._reader.waiting else None
            if values is None or item.frames or item.seconds:
                return None
            cached[item.text] = values[None]
        so_far = np.full(self._reader.grid.shape, plain_value(obj, name))
        row: Array = link.put_together(node, self._reader.grid, self._reader.timing, so_far, lambda item: cached[item.text], rule.mode)[0]
        return row
