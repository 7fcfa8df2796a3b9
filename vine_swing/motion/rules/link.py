"""Link: computes the values from a formula (design section 6).

The formula reads time, what the card before made, and any channel or dial of the scene, now, earlier or later. Where it has no answer,
what the card before made stays; so it does where a name in it is of nothing in the scene.
"""

from collections.abc import Callable
from functools import lru_cache

import numpy as np

from vine_swing.motion.formula import FormulaError, Node, Reference, evaluate, first_without_answer, read, references
from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Shift, Source, Timing, by_name, combined


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values of the formula, put in place of what was there, added to it or multiplied with it."""
    return computed(source, settings.choice("formula"), source.at, mode)


def computed(source: Source, formula: str, before: Read, mode: Mode = "replace") -> Read:
    """A formula over what `before` gives, read at any frames; where it has no answer, `before` stays."""
    node = tree_of(formula)
    if node is None:
        return before

    return lambda t: put_together(node, t, source.timing, before(t), looking(source, t), mode)


def put_together(node: Node, t: Array, timing: Timing, so_far: Array, look: Callable[[Reference], Array], mode: Mode) -> Array:
    """Evaluate a formula at frames t (1, n) on the previous card's values (1, n); `look` reads other channels."""
    worked = evaluate(node, t, timing.fps, lambda: so_far, look, timing.copy)
    made = combined(mode, so_far, worked)
    # The least of them is no number as soon as one is none, and cheaper to ask.
    return np.where(np.isnan(worked), so_far, made) if np.isnan(np.minimum.reduce(worked, axis=None)) else made


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """Return the formula's missing reference, or the first frame at which it is undefined."""
    formula = settings.choice("formula")
    node = tree_of(formula)
    if node is None:
        return "the formula cannot be read"
    for one in references_in(formula):
        if source.scene.named(one.text) is None:
            return f"there is no '{one.text}' any more; the value of the card before stays"
    found = first_without_answer(node, t, source.timing.fps, lambda: source.at(t), looking(source, t), source.timing.copy)
    return None if found is None else f"{found}; there the value of the card before stays"


@lru_cache(maxsize=4096)
def tree_of(text: str) -> Node | None:
    """A formula's tree; None for one that cannot be read, which no scene lets in. Every bake asks again: trees are kept."""
    try:
        return read(text)
    except FormulaError:
        return None


@lru_cache(maxsize=4096)
def references_in(text: str) -> tuple[Reference, ...]:
    """The channels and dials a formula reads, in the order they stand; none for one that cannot be read."""
    node = tree_of(text)
    return tuple(references(node)) if node is not None else ()


def looking(source: Source, t: Array) -> Callable[[Reference], Array]:
    """How a formula reads channels and dials at frames t."""

    def look(reference: Reference) -> Array:
        found = source.scene.named(reference.text)
        if found is None:
            return np.full((1, 1), np.nan)
        return found.at(t + (reference.frames + reference.seconds * source.timing.fps) if reference.frames or reference.seconds else t)

    return look


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    return named_in(word("formula"))


def named_in(formula: str) -> tuple[tuple[str, str], ...]:
    """Return a formula's references, as pairs of NAMED and the name."""
    return tuple((NAMED, one.text) for one in references_in(formula))


def _shifts(word: Callable[[str], str], number: Callable[[str], float | None], channel: str) -> list[Shift]:
    return [((NAMED, one.text), one.frames, one.seconds) for one in references_in(word("formula"))]


#: Stands for an object's id where a rule names what it looks at as a formula does.
NAMED = "{}"

SPEC = RuleSpec(
    kind="link",
    label="Link",
    about="Computed from other motion: gears, shadows, anything that follows a rule of your own.",
    settings=by_name(
        SettingSpec("formula", "formula", "", "value", about="Numbers, {Mill wheel.rotation}, {Wind}, t, f, value, functions.", names="formula")
    ),
    modes=("replace", "add", "multiply"),
    prepare=prepare,
    summary="{formula}",
    example={"formula": "value + 12 * sin(f * 20)"},
    unbatched=True,
    remark=remark,
    dependencies=_dependencies,
    shifts=_shifts,
)
