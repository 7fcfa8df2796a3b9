"""The house: imports point one way, what is generated is up to date, and every public thing is explained."""

import ast
import importlib
import json
import pkgutil
import re
import sys
from pathlib import Path

import jsonschema
import numpy as np
import pytest

import vine_swing
from demo import elements, principles
from demo.make import MAKERS, SCENES, TAKES, take_texts, texts
from tests.motion.scenes import EXAMPLE
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit
from vine_swing.motion.rules import RULES
from vine_swing.motion.scene.scene_file import load

ROOT = Path(__file__).resolve().parents[1]
LAYERS = ["motion", "picture", "formats", "store", "service", "cli"]
#: The rooms of the core, from the ground up; docs/architecture.md has the picture.
ROOMS = ["basics", "sound", "curves", "formula", "timing", "figure", "parade", "rules", "scene", "outline", "baking", "edits", "notes"]
#: The core knows numbers only; the model alone knows Pydantic, formulas alone their grammar, curves alone SVG path data and Skia's operations on
#: paths, texts alone fonts, and sounds alone their decoders.
CORE_MAY_USE = {"av", "bidi", "lark", "numpy", "scipy", "pydantic", "skia", "svgelements", "uharfbuzz", "vine_swing"} | set(
    sys.stdlib_module_names
) - {
    "http",
    "sqlite3",
    "socket",
    "time",
    "random",
    "asyncio",
    "urllib",
}


def module_name(path):
    parts = path.relative_to(ROOT).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


FILES = sorted((ROOT / "vine_swing").rglob("*.py"))
MODULES = {module_name(path): path for path in FILES}


def imports(path):
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path}: imports are written in full"
            # `from package import module` reads the module, not the package's own names.
            yield from ((name if (name := f"{node.module}.{alias.name}") in MODULES else node.module) for alias in node.names)


def layer(module):
    parts = module.split(".")
    return LAYERS.index(parts[1]) if parts[0] == "vine_swing" and len(parts) > 1 and parts[1] in LAYERS else None


@pytest.mark.parametrize("path", FILES, ids=lambda path: str(path.relative_to(ROOT)))
def test_imports_point_one_way(path):
    own = layer(".".join(path.relative_to(ROOT).with_suffix("").parts))
    for module in imports(path):
        other = layer(module)
        if own is not None and other is not None:
            assert other <= own, f"{path.name} reaches up to {module}"
        if own == 0:
            assert module.split(".")[0] in CORE_MAY_USE, f"the core must not know {module}"
        if module.split(".")[0] == "sqlite3":
            assert "store" in path.parts, "nothing but the store knows SQL"


def test_what_takes_long_to_load_is_loaded_where_it_is_used():
    """SciPy's larger parts take a fifth of a second each, which everybody would wait for who starts the service or checks a file."""
    for path in FILES:
        loaded = [node for node in ast.parse(path.read_text(encoding="utf-8")).body if isinstance(node, ast.Import | ast.ImportFrom)]
        names = {alias.name for node in loaded for alias in node.names} | {node.module for node in loaded if isinstance(node, ast.ImportFrom)}
        assert not [name for name in names if name and name.split(".")[0] == "scipy"], f"{path.name} loads scipy whenever it is imported"


def room(module):
    parts = module.split(".")
    return ROOMS.index(parts[2]) if parts[:2] == ["vine_swing", "motion"] and len(parts) > 2 else None


@pytest.mark.parametrize("path", [path for path in FILES if "motion" in path.parts], ids=lambda path: str(path.relative_to(ROOT)))
def test_rooms_of_the_core_import_downwards(path):
    own = room(module_name(path))
    assert own is not None or path.parent.name == "motion"
    for module in imports(path):
        other = room(module) if module.startswith("vine_swing.motion.") else None
        if own is not None and other is not None:
            assert other <= own, f"{module_name(path)} reaches up to {module}"


def test_kinds_of_object_are_told_apart_by_their_table_only():
    from typing import get_args

    from vine_swing.motion.scene.kinds import KINDS
    from vine_swing.motion.scene.objects import SceneObject

    assert {kind.model for kind in KINDS.values()} == set(get_args(get_args(SceneObject)[0]))
    for name, kind in KINDS.items():
        assert get_args(kind.model.model_fields["kind"].annotation) == (name,)
        assert kind.content is None or kind.content in kind.model.model_fields
    asked = re.compile(r"isinstance\([^)]*(Shape|Group|Figure)Object|\.kind == \"(shape|group|figure)\"")
    for path in FILES:
        if not path.is_relative_to(ROOT / "vine_swing" / "motion" / "edits"):
            assert not asked.search(path.read_text(encoding="utf-8")), f"{path.name} asks for a kind by its name"


#: What is written by hand in source files, most of them far shorter. A longer one has more than one subject, and is split by these.
MOST_LINES = 400
PAGE = ROOT / "web" / "src"


def test_the_page_tells_kinds_apart_in_one_file():
    # Steps of the vine have kinds of their own, of which one is called "shape" too.
    asked = re.compile(r"(?<!step)\.kind [!=]== \"(dial|shape|group|figure|parade|picture|inset|camera)\"")
    for path in PAGE.rglob("*"):
        if path.suffix in (".ts", ".vue") and not path.name.endswith(".test.ts") and path != PAGE / "api" / "kinds.ts":
            found = asked.search(path.read_text(encoding="utf-8"))
            assert not found, f"{path.relative_to(ROOT)} asks for a kind by its name: {found[0]}"


def test_source_files_are_short():
    page = [path for path in PAGE.rglob("*") if path.suffix in (".ts", ".vue") and path.name != "schema.d.ts"]
    long = {str(path.relative_to(ROOT)): lines for path in [*FILES, *page] if (lines := len(path.read_text("utf-8").splitlines())) > MOST_LINES}
    assert not long, f"files of more than {MOST_LINES} lines: {long}"


def test_lines_of_the_page_are_short():
    """Only a sentence that people read, or the data of a drawing, may make a line longer: cut in two it could not be searched for."""
    whole = re.compile(r"""(["'`])(?:(?!\1).){60,}\1""")
    long = [
        f"{path.relative_to(ROOT)}:{number}"
        for path in sorted(PAGE.rglob("*"))
        if path.suffix in (".ts", ".vue") and path.name != "schema.d.ts"
        for number, line in enumerate(path.read_text("utf-8").splitlines(), 1)
        if len(line) > 120 and not whole.search(line)
    ]
    assert not long, f"lines of more than 120 characters: {long}"


def test_files_that_the_engineers_pages_name_are_there():
    there = [path.relative_to(ROOT).as_posix() for top in ("vine_swing", "web/src", "tests", "tools", "demo") for path in (ROOT / top).rglob("*")]
    text = (ROOT / "docs" / "architecture.md").read_text(encoding="utf-8")
    named = set(re.findall(r"`([\w/.-]+\.(?:py|ts|vue|lark|sql))`", text))
    assert len(named) > 30
    gone = sorted(name for name in named if not any(path == name or path.endswith(f"/{name}") for path in there))
    assert not gone, f"docs/architecture.md names files that are not there: {gone}"


def test_every_room_says_what_it_is_for_in_the_docs():
    text = (ROOT / "docs" / "architecture.md").read_text(encoding="utf-8")
    for name in ROOMS:
        assert f"| `{name}` |" in text, f"docs/architecture.md does not tell of {name}"


def test_modules_do_not_import_each_other_in_a_ring():
    known = {module: {m for m in imports(path) if m in MODULES and m != module} for module, path in MODULES.items()}
    done, trail = set(), []

    def visit(module):
        assert module not in trail, " → ".join([*trail[trail.index(module) :], module])
        if module in done:
            return
        trail.append(module)
        for other in sorted(known[module]):
            visit(other)
        trail.pop()
        done.add(module)

    for module in MODULES:
        visit(module)


def test_every_module_and_public_thing_is_explained():
    for info in pkgutil.walk_packages(vine_swing.__path__, "vine_swing."):
        if info.name.endswith("__main__"):
            continue
        module = importlib.import_module(info.name)
        assert module.__doc__, info.name
        for thing_name, thing in vars(module).items():
            if not thing_name.startswith("_") and getattr(thing, "__module__", None) == info.name and callable(thing):
                assert thing.__doc__, f"{info.name}.{thing_name}"


def test_generated_documents_are_up_to_date():
    sys.path.insert(0, str(ROOT / "tools"))
    try:
        from write_schemas import documents
    finally:
        sys.path.pop(0)
    for name, text in documents().items():
        assert (ROOT / "docs" / name).read_text(encoding="utf-8") == text, f"docs/{name} is old: run make types"


def test_the_published_schema_agrees_with_the_reader():
    schema = json.loads((ROOT / "docs" / "scene.schema.json").read_text(encoding="utf-8"))
    jsonschema.Draft202012Validator.check_schema(schema)
    validator = jsonschema.Draft202012Validator(schema)
    validator.validate(EXAMPLE)
    for path in SCENES.glob("*.json"):
        validator.validate(json.loads(path.read_text(encoding="utf-8")))
    assert not validator.is_valid(EXAMPLE | {"wobble": 1})
    assert not validator.is_valid(EXAMPLE | {"fps": -3})


def test_the_shipped_scenes_are_what_the_demo_code_makes():
    assert {path.name: path.read_text(encoding="utf-8") for path in SCENES.glob("*.json")} == texts()
    assert {path.name: path.read_text(encoding="utf-8") for path in TAKES.glob("*.json")} == take_texts()
    for name in MAKERS:
        assert load(SCENES / f"{name}.json").objects


def test_the_shipped_scenes_show_what_they_promise():
    mango = next(one for one in load(SCENES / "01-thrown-mango.json").objects if one.name == "Mango")
    assert all(len(mango.channels[name].keys) == 2 and mango.channels[name].after.mode == "ping-pong" for name in ("x", "y", "rotation"))
    parcel = next(one for one in load(SCENES / "02-up-the-liana.json").objects if one.name == "Parcel")
    assert parcel.channels["y"].after.mode == "climb"
    toucan = load(SCENES / "03-toucan-glide.json")
    assert sum(one.parent == "toucan" for one in toucan.objects) >= 5


def test_no_registry_host_stands_in_a_tracked_file():
    host = re.compile(r"https?://[a-z0-9.-]*(pypi|npmjs|pythonhosted|debian)\.[a-z]+")
    for path in [ROOT / "web" / "package-lock.json", *ROOT.glob("*.lock"), ROOT / "pyproject.toml"]:
        assert not host.search(path.read_text(encoding="utf-8")), path.name


def test_every_edit_is_told_in_the_docs():
    from typing import get_args

    union = get_args(get_args(AnyEdit)[0])
    text = (ROOT / "docs" / "edits.md").read_text(encoding="utf-8")
    for edit in union:
        (kind,) = get_args(edit.model_fields["edit"].annotation)
        assert f"`{kind}`" in text, f"docs/edits.md does not tell of {kind}"


def test_the_breezy_station_loops_without_a_seam():
    one = load(SCENES / "04-breezy-station.json")
    h = 1e-4
    baked = bake(one, np.array([0.0, h, one.length, one.length + h]))
    for thing in baked.objects.values():
        begin, just_after, end, beyond = np.broadcast_to(thing.world, (4, 6))
        np.testing.assert_allclose(end, begin, atol=1e-3, err_msg=thing.source.name)
        np.testing.assert_allclose((beyond - end) / h, (just_after - begin) / h, atol=0.05, err_msg=f"slope of {thing.source.name}")


def test_every_rule_is_in_the_format_s_document():
    text = (ROOT / "docs" / "scene-file.md").read_text(encoding="utf-8")
    for kind, spec in RULES.items():
        row = next((line for line in text.splitlines() if line.startswith(f"| `{kind}` |")), None)
        assert row is not None, f"docs/scene-file.md does not tell of '{kind}'"
        assert all(f"`{name}`" in row for name in spec.settings), f"docs/scene-file.md does not name every setting of '{kind}'"


def test_shipped_principles_are_what_makes_them():
    assert {file.name: file.read_text(encoding="utf-8") for file in principles.FOLDER.glob("*.json")} == principles.texts()
    assert len(principles.texts()) == 12


def test_shipped_elements_are_what_makes_them():
    assert {file.name: file.read_text(encoding="utf-8") for file in elements.FOLDER.glob("*.json")} == elements.texts()
