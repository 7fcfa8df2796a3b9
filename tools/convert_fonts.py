"""Write the fonts that texts are set in, as TrueType files beside their licences.

The sources are WOFF2 files of npm packages `@fontsource-variable/NAME`, one file for each part of Unicode:

    npm install --prefix FOLDER $(python -m tools.convert_fonts --packages)
    python -m tools.convert_fonts FOLDER
"""

import shutil
import sys
from pathlib import Path

from fontTools.ttLib import TTFont

FONTS = Path(__file__).resolve().parents[1] / "vine_swing" / "motion" / "outline" / "text" / "fonts"
#: The packages, each with the parts of Unicode that are kept of it.
PARTS: dict[str, tuple[str, ...]] = {
    "figtree": ("latin", "latin-ext"),
    "bricolage-grotesque": ("latin", "latin-ext"),
    "atkinson-hyperlegible-mono": ("latin", "latin-ext"),
    "literata": ("latin", "latin-ext"),
    "caveat": ("latin", "latin-ext", "cyrillic"),
    "rubik": ("latin", "latin-ext", "hebrew", "cyrillic"),
    "vazirmatn": ("latin", "latin-ext", "arabic"),
}


def main(folder: Path) -> None:
    """Convert every part of every package under `folder`/node_modules."""
    for name, parts in PARTS.items():
        package = folder / "node_modules" / "@fontsource-variable" / name
        target = FONTS / name
        target.mkdir(parents=True, exist_ok=True)
        shutil.copyfile(package / "LICENSE", target / "OFL.txt")
        for part in parts:
            font = TTFont(package / "files" / f"{name}-{part}-wght-normal.woff2")
            # Hints are for pixels of a screen; texts become outlines of any size.
            for table in ("fpgm", "prep", "cvt ", "gasp", "cvar", "DSIG"):
                if table in font:
                    del font[table]
            font.flavor = None
            font.save(target / f"{part}.ttf")


if __name__ == "__main__":
    if sys.argv[1:] == ["--packages"]:
        print(" ".join(f"@fontsource-variable/{name}" for name in PARTS))
    else:
        main(Path(sys.argv[1]))
