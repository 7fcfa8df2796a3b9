"""The font families that texts can be set in. They ship with the application, each beside its licence."""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from importlib.resources import files

from vine_swing.motion.basics.contents import FONT_FILES
from vine_swing.motion.outline.text.face import Face

#: The folder of the font files.
FONTS = files("vine_swing.motion.outline.text") / "fonts"


@dataclass(frozen=True)
class Family:
    """One family of fonts.

    name: as in the scene file.
    label: what people read.
    about: what it is good for.
    parts: its files, one for each part of Unicode, the one looked into first at the front.
    weights: the weights to choose from, 400 for regular and 700 for bold, as CSS counts them.
    """

    name: str
    label: str
    about: str
    parts: tuple[str, ...]
    weights: tuple[int, ...]

    @cached_property
    def faces(self) -> tuple[Face, ...]:
        """Its files, read when they are first asked for."""
        return tuple(Face(f"{self.name} {part}", (FONTS / self.name / f"{part}.ttf").read_bytes()) for part in self.parts)

    @property
    def licence(self) -> str:
        """The text of its licence."""
        return (FONTS / self.name / "OFL.txt").read_text(encoding="utf-8")


FAMILIES: dict[str, Family] = {
    family.name: family
    for family in (
        Family(
            "figtree", "Figtree", "Friendly and plain; for labels, captions and lists.", ("latin", "latin-ext"), (300, 400, 500, 600, 700, 800, 900)
        ),
        Family(
            "bricolage-grotesque",
            "Bricolage Grotesque",
            "Full of character; for titles.",
            ("latin", "latin-ext"),
            (200, 300, 400, 500, 600, 700, 800),
        ),
        Family(
            "atkinson-hyperlegible-mono",
            "Atkinson Hyperlegible Mono",
            "All digits equally wide; for numbers that count.",
            ("latin", "latin-ext"),
            (200, 300, 400, 500, 600, 700, 800),
        ),
        Family("literata", "Literata", "With serifs; for letters and stories.", ("latin", "latin-ext"), (200, 300, 400, 500, 600, 700, 800, 900)),
        Family("caveat", "Caveat", "Written by hand; for notes and postcards.", ("latin", "latin-ext", "cyrillic"), (400, 500, 600, 700)),
        Family(
            "rubik",
            "Rubik",
            "Soft corners; Hebrew and Cyrillic too.",
            ("latin", "latin-ext", "hebrew", "cyrillic"),
            (300, 400, 500, 600, 700, 800, 900),
        ),
        Family(
            "vazirmatn",
            "Vazirmatn",
            "For Arabic and Persian, with letters of the Latin script to match.",
            ("latin", "latin-ext", "arabic"),
            (100, 200, 300, 400, 500, 600, 700, 800, 900),
        ),
    )
}
#: Where what a family does not have is looked for.
_FALLBACKS = ("figtree", "rubik", "vazirmatn", "caveat")


@lru_cache(maxsize=64)
def faces_of(family: str) -> tuple[Face, ...]:
    """The faces in which the characters of a text are looked for, one after the other: the family's own, then those of others.

    Raises:
        KeyError: if the family does not exist.
    """
    if family.startswith(FONT_FILES.prefix):
        own: tuple[Face, ...] = (Face(family, FONT_FILES.data_of(family)),)
        return own + tuple(face for name in _FALLBACKS for face in FAMILIES[name].faces)
    names = dict.fromkeys((family, *_FALLBACKS))
    return tuple(face for name in names for face in FAMILIES[name].faces)
