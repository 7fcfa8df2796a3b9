"""docs/extending.md is followed to the letter in a copy of the project, and what it makes passes its tests."""

import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
GUIDE = ROOT / "docs" / "extending.md"
#: What the guide says to run, and the laws it promises.
TESTS = [
    "tests/motion/test_gather.py",
    "tests/formats/test_arcs.py",
    "tests/motion/test_principles.py",
    "tests/motion/test_rules.py::test_any_chain_is_finite_and_the_same_on_any_grid",
    "tests/test_structure.py::test_every_rule_is_in_the_format_s_document",
    "tests/test_structure.py::test_imports_point_one_way",
]


def followed(folder):
    """Do what the guide says in a folder; returns the files it made or changed."""
    place, made = None, []
    for part in re.split(r"(```\w+\n.*?```)", GUIDE.read_text(encoding="utf-8"), flags=re.DOTALL):
        block = re.fullmatch(r"```(\w+)\n(.*?)```", part, flags=re.DOTALL)
        if block is None:
            named = re.findall(r"(?:\*\*New file\*\*|In) `([\w./-]+)`", part)
            place = named[-1] if named else place
        elif block[1] == "python":
            (folder / place).write_text(block[2], encoding="utf-8")
            made.append(place)
        elif block[1] == "diff":
            lines = block[2].splitlines(keepends=True)
            old, new = ("".join(line[1:] for line in lines if line[0] in signs) for signs in (" -", " +"))
            text = (folder / place).read_text(encoding="utf-8")
            assert text.count(old) == 1, f"{place} does not have exactly once:\n{old}"
            (folder / place).write_text(text.replace(old, new), encoding="utf-8")
            made.append(place)
    return made


@pytest.fixture
def copy(tmp_path):
    for name in ("vine_swing", "tests", "docs", "demo"):
        shutil.copytree(ROOT / name, tmp_path / name, ignore=shutil.ignore_patterns("__pycache__", "screenshots"))
    for name in ("pyproject.toml",):
        shutil.copy(ROOT / name, tmp_path / name)
    return tmp_path


def run(folder, *command):
    return subprocess.run(
        [sys.executable, *command], cwd=folder, env={"PYTHONPATH": str(folder), "PATH": "/usr/bin:/bin", "QUICK": "1"}, capture_output=True, text=True
    )


@pytest.mark.slow
def test_the_guide_works(copy):
    assert len(followed(copy)) == 8
    told = run(copy, "-m", "pytest", "-o", "addopts=", "-p", "no:cacheprovider", *TESTS, "-k", "gather or arcs or chain or document")
    assert told.returncode == 0, told.stdout[-3000:] + told.stderr[-1000:]
    assert int(re.search(r"(\d+) passed", told.stdout)[1]) >= 7, told.stdout[-500:]
    for tool in (["ruff", "check", "."], ["ruff", "format", "--check", "."]):
        checked = run(copy, "-m", *tool)
        assert checked.returncode == 0, checked.stdout[-2000:]
