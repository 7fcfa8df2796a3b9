"""From the baked rules on a look to the effects of its group in the paint list."""

from collections.abc import Callable, Hashable
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.look import BakedLook
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.picture.effects import Blur, Fringe, Glow, Mask, Recolour, Shadow
from vine_swing.picture.paint_list import Effect, Step
from vine_swing.picture.tracks import Track

#: How something is seen through the camera, in the names of arrays.
LENS = "camera.lens"
#: The track for an array of an object, by the object's id, the array's name and itself.
MakeTrack = Callable[[str, str, NDArray[np.float64]], Track]


def words_of(look: BakedLook) -> tuple[Hashable, ...]:
    """What of a rule on a look steps say besides tracks."""
    rule = look.rule
    return (rule.id, rule.kind, *(rule.word(name) for name, spec in rule.spec.settings.items() if spec.is_word))


def effect_of(look: BakedLook, one: BakedObject, track: MakeTrack, picture_of: Callable[[str], tuple[Step, ...]]) -> Effect | None:
    """The effect of one rule; None where it has none yet.

    Args:
        look: the rule.
        one: the object it is on.
        track: makes tracks.
        picture_of: gives the steps of another object with its descendants, by its id; none where the object does not exist beside this one.
    """
    rule, owner = look.rule, one.source.id
    rule_id, matrix = rule.id, track(owner, LENS, one.lens) if one.lens is not None else None

    def made(name: str) -> Track:
        values = look.values[name] if name in look.values else look.derived[name]
        return track(owner, f"{rule.id}:{name}", values)

    match rule.kind:
        case "shadow":
            dx, dy, blur, colour, opacity = map(made, ("dx", "dy", "blur", "colour", "opacity"))
            return Shadow(rule=rule_id, matrix=matrix, dx=dx, dy=dy, blur=blur, colour=colour, opacity=opacity)
        case "glow":
            lies: Literal["behind", "over"] = "over" if rule.word("lies") == "over" else "behind"
            return Glow(rule=rule_id, matrix=matrix, size=made("size"), colour=made("colour"), strength=made("strength"), lies=lies)
        case "blur" if rule.word("way") == "travel":
            return Blur(rule=rule_id, matrix=matrix, size=made("sizes"), angle=made("angles"))
        case "blur":
            return Blur(rule=rule_id, matrix=matrix, size=made("size"), angle=made("angle") if rule.word("way") == "across" else None)
        case "fringe":
            middle = track(owner, "place", one.place) if rule.word("way") == "outward" else None
            return Fringe(rule=rule_id, matrix=matrix, distance=made("distance"), angle=made("angle"), middle=middle)
        case "mask":
            steps = picture_of(rule.word("by"))
            side: Literal["inside", "outside"] = "outside" if rule.word("side") == "outside" else "inside"
            reads: Literal["opacity", "lightness"] = "lightness" if rule.word("reads") == "lightness" else "opacity"
            return Mask(rule=rule_id, matrix=matrix, steps=steps, side=side, reads=reads, feather=made("feather")) if steps else None
        case "recolour":
            return Recolour(rule=rule_id, matrix=matrix, colours=made("colours"))
    raise LookupError(f"no effect belongs to a rule '{rule.kind}'")
