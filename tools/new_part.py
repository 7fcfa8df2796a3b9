"""Make a new rule, look, note or format from the examples of docs/extending.md, under a name of one's own: `make new-rule NAME=gather`.

What it makes passes its tests as it stands; then it is changed into what was wanted.
"""

import argparse
import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
#: The section that tells how each part is added, and the name its example has.
PARTS = {"rule": ("A rule", "gather"), "look": ("A look", "invert"), "note": ("A kind of note", "hollow"), "format": ("A format", "arcs")}
_NAME = re.compile(r"[a-z]{3,20}")


class Refused(Exception):
    """The part cannot be made; the message says why."""


def make(part: str, name: str, root: Path = ROOT) -> list[Path]:
    """Add a part to the project in a folder.

    Args:
        part: "rule", "look", "note" or "format".
        name: one word of small letters, which nothing else of the project has as the name of a file.

    Returns:
        The files that were made or changed.

    Raises:
        Refused: if the name does not do, or the project is not as the guide has it; nothing is changed then.
    """
    if not _NAME.fullmatch(name):
        raise Refused(f"'{name}' will not do as a name; take one word of 3 to 20 small letters, such as 'gather'")
    heading, example = PARTS[part]
    guide = (root / "docs" / "extending.md").read_text(encoding="utf-8")
    section = re.split(r"^## ", guide, flags=re.MULTILINE)
    (report,) = [item for item in section if item.startswith(f"{heading}\n")]
    written: dict[Path, str] = {}
    for place, kind, block in _blocks(_renamed(report, example, name)):
        path = root / place
        if kind == "python":
            if path.exists():
                raise Refused(f"{place} is there already; take another name")
            written[path] = block
        else:
            before = written[path] if path in written else path.read_text(encoding="utf-8")
            written[path] = _changed(before, block, place)
    for path, text in written.items():
        path.write_text(text, encoding="utf-8")
    changed = [str(path) for path in written if path.suffix == ".py"]
    # Imports in their order, whichever letter the name begins with.
    subprocess.run([sys.executable, "-m", "ruff", "check", "--quiet", "--select", "I", "--fix", *changed], cwd=root, check=True)
    subprocess.run([sys.executable, "-m", "ruff", "format", "--quiet", *changed], cwd=root, check=True)
    return list(written)


def _renamed(text: str, example: str, name: str) -> str:
    """The example under another name, which begins with a capital where the example does."""
    text = re.sub(rf"(?<![a-z]){example}(?![a-z])", name, text)
    return re.sub(rf"(?<![A-Za-z]){example.capitalize()}(?![a-z])", name.capitalize(), text)


def _blocks(section: str) -> list[tuple[str, str, str]]:
    """The blocks of a section: the file each is about, "python" for a whole one or "diff" for lines to add, and its text."""
    result, place = [], ""
    for part in re.split(r"(```\w+\n.*?```)", section, flags=re.DOTALL):
        block = re.fullmatch(r"```(python|diff)\n(.*?)```", part, flags=re.DOTALL)
        if block is not None:
            result.append((place, block[1], block[2]))
        else:
            named = re.findall(r"(?:\*\*New file\*\*|In) `([\w./-]+)`", part)
            place = named[-1] if named else place
    return result


def _changed(before: str, block: str, place: str) -> str:
    lines = block.splitlines(keepends=True)
    old, new = ("".join(line[1:] for line in lines if line[0] in signs) for signs in (" -", " +"))
    if before.count(old) != 1:
        raise Refused(f"{place} does not have exactly once:\n{old}")
    return before.replace(old, new)


def main() -> int:
    """The command line: the part and its name."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("part", choices=PARTS)
    parser.add_argument("name")
    options = parser.parse_args()
    try:
        created = make(options.part, options.name)
    except Refused as refusal:
        print(refusal, file=sys.stderr)
        return 1
    for path in created:
        print(path.relative_to(ROOT))
    print("now: make types, then make test; docs/extending.md says what each file is for")
    return 0


if __name__ == "__main__":
    sys.exit(main())
