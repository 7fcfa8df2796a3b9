"""Linking by hand: from what drives, what is driven and how, to a formula that does not make the picture jump."""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.formula import evaluate, read
from vine_swing.motion.formula.by_hand import ByHand, shifted
from vine_swing.motion.rules.link import looking
from vine_swing.motion.rules.rule import SETTING
from vine_swing.motion.scene.graph import Ref
from vine_swing.motion.scene.model import Scene


def formula_by_hand(scene: Scene, driver: Ref, driven: Ref, how: ByHand, keep_at: float | None = None) -> str:
    """The formula by which one value drives another.

    Args:
        scene: the scene.
        driver: a channel with numbers, or a dial as (`dial:` and its id, "value").
        driven: a channel with numbers, or a number setting of a rule, named `rule:setting`.
        how: the way it follows.
        keep_at: the frame at which its value stays in its current state; None to take the driver's as it comes.

    Raises:
        NoSuchThing: if the scene has no such driver or driven.
        EditError: if either holds no numbers.
    """
    name = name_of(scene, driver)
    if keep_at is None:
        return how.formula(name, None)
    reader, t = Reader(scene), np.array([[keep_at]])
    source = reader.filler.run(lambda: reader.named(name[1:-1]))
    assert source is not None, f"{name} was named by name_of"
    text = how.formula(name, float(reader.filler.run(lambda: source.at(t))[0, 0]))
    if how.keeps:
        return text
    present = _present(reader, driven, t)
    worked = reader.filler.run(lambda: evaluate(read(text), t, scene.fps, lambda: np.array([[present]]), looking(source, t)))[0, 0]
    return shifted(text, present - float(worked)) if np.isfinite(worked) else text


def name_of(scene: Scene, ref: Ref) -> str:
    """What formulas call a channel or a dial, in braces.

    Raises:
        NoSuchThing: if the scene has none such.
        EditError: if it holds no numbers.
    """
    dial = scene.dials_by_id.get(ref[0])
    if dial is not None:
        if dial.is_colour:
            raise EditError(f"the dial '{dial.name}' holds colours, and formulas work with numbers; put the rule Tint on what shall take its colour")
        return f"{{{dial.name}}}"
    thing = scene.by_id.get(ref[0])
    if thing is None or ref[1] not in thing.specs:
        raise NoSuchThing(f"there is no channel '{ref[1]}' of '{ref[0]}' in this scene; it may have been deleted")
    if thing.specs[ref[1]].kind != "number":
        raise EditError(f"{thing.name} {ref[1]} holds no numbers; choose another channel to drive with")
    return f"{{{thing.name}.{ref[1]}}}"


def _present(reader: Reader, driven: Ref, t: NDArray[np.float64]) -> float:
    thing = reader.scene.by_id.get(driven[0])
    known = thing is not None and (driven[1] in thing.specs or any(driven[1].startswith(f"{rule.id}{SETTING}") for rule in thing.rules))
    if thing is None or not known:
        raise NoSuchThing(f"there is no channel '{driven[1]}' of '{driven[0]}' in this scene; it may have been deleted")
    if SETTING not in driven[1] and thing.specs[driven[1]].kind != "number":
        raise EditError(f"{thing.name} {driven[1]} holds no numbers, so no formula can make it")
    return float(reader.filler.run(lambda: reader.final(*driven).at(t))[0, 0])
