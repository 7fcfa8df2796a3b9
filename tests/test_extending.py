"""What `make new-rule` and its like make from docs/extending.md passes its tests as it stands."""

import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tools.new_part import PARTS, Refused, make

ROOT = Path(__file__).resolve().parents[1]
#: A name of one's own for each, and the tests that hold what is made to the laws of its kind.
NAMES = {"rule": "nestle", "look": "flash", "note": "vacant", "format": "sweeps"}
TESTS = {
    "rule": ["tests/motion/test_nestle.py", "tests/motion/test_rules.py::test_any_chain_is_finite_and_the_same_on_any_grid"],
    "look": ["tests/motion/test_flash.py", "tests/picture"],
    "note": ["tests/motion/notes/test_corpus.py"],
    "format": ["tests/formats/test_sweeps.py"],
}
LAWS = ["tests/test_structure.py::test_every_rule_is_in_the_format_s_document", "tests/test_structure.py::test_imports_point_one_way"]
LAWS += ["tests/test_docstrings.py::test_everything_public_in_a_module_has_a_docstring"]
WHICH = "nestle or flash or vacant or sweeps or chain or document or imports"


@pytest.fixture
def copy(tmp_path):
    for name in ("vine_swing", "tests", "docs", "demo", "tools"):
        shutil.copytree(ROOT / name, tmp_path / name, ignore=shutil.ignore_patterns("__pycache__", "screenshots"))
    shutil.copy(ROOT / "pyproject.toml", tmp_path / "pyproject.toml")
    return tmp_path


def run(folder, *command):
    environment = {"PYTHONPATH": str(folder), "PATH": "/usr/bin:/bin", "QUICK": "1"}
    return subprocess.run([sys.executable, *command], cwd=folder, env=environment, capture_output=True, text=True)


@pytest.mark.slow
def test_one_of_each_is_made_and_passes_its_tests(copy):
    for part, name in NAMES.items():
        assert make(part, name, copy)
    tests = [*(test for part in PARTS for test in TESTS[part]), *LAWS]
    told = run(copy, "-m", "pytest", "-v", "-o", "addopts=", "-p", "no:cacheprovider", *tests, "-k", WHICH)
    assert told.returncode == 0, told.stdout[-3000:] + told.stderr[-1000:]
    assert int(re.search(r"(\d+) passed", told.stdout)[1]) >= 15, told.stdout[-500:]
    passed = "\n".join(line for line in told.stdout.splitlines() if "PASSED" in line)
    for name in NAMES.values():
        assert name in passed, f"no test is of {name}"
    for tool in (["ruff", "check", "."], ["ruff", "format", "--check", "."]):
        checked = run(copy, "-m", *tool)
        assert checked.returncode == 0, checked.stdout[-2000:]
    # A second one beside the first.
    assert make("rule", "amble", copy)
    assert (
        run(copy, "-m", "pytest", "-o", "addopts=", "-p", "no:cacheprovider", "tests/motion/test_amble.py", "tests/motion/test_nestle.py").returncode
        == 0
    )


@pytest.mark.parametrize(("name", "says"), [("Gather", "small letters"), ("a-b", "small letters"), ("noise", "there already")])
def test_a_name_that_will_not_do_is_refused_and_nothing_is_changed(copy, name, says):
    before = {path: path.read_bytes() for path in copy.rglob("*.py")}
    with pytest.raises(Refused, match=says):
        make("rule", name, copy)
    assert {path: path.read_bytes() for path in copy.rglob("*.py")} == before
