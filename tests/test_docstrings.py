"""Whoever reads the code finds what each public thing is for: modules, classes, functions, routes, components, and what the page's modules export."""

import importlib
import inspect
import pkgutil
import re
from pathlib import Path

import pytest

import vine_swing
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

ROOT = Path(__file__).resolve().parents[1]
MODULES = sorted(found.name for found in pkgutil.walk_packages(vine_swing.__path__, "vine_swing.") if not found.name.endswith("__main__"))
SOURCES = [
    path for path in sorted((ROOT / "web" / "src").rglob("*")) if path.suffix in (".ts", ".vue") and not path.name.endswith((".test.ts", ".d.ts"))
]
#: A docstring says something: more than the name again.
LEAST = 12


def said(thing: object) -> bool:
    """Whether an object has a docstring of its own or, as an overriding method, its base's."""
    return len((inspect.getdoc(thing) or "").strip()) >= LEAST


def silent_methods(kind: type) -> list[str]:
    """The public methods and properties that a class itself defines and says nothing of; fields that hold a function are described with the others."""
    fields = getattr(kind, "__dataclass_fields__", {})
    silent = []
    for called, body in vars(kind).items():
        function = getattr(body, "fget", getattr(body, "__func__", body))
        own = inspect.isfunction(function) and function.__module__ == kind.__module__
        if own and not called.startswith("_") and called not in fields and not said(body if isinstance(body, property) else getattr(kind, called)):
            silent.append(f"{kind.__name__}.{called}")
    return silent


@pytest.mark.parametrize("name", MODULES)
def test_everything_public_in_a_module_has_a_docstring(name):
    module = importlib.import_module(name)
    silent = [] if said(module) else [name]
    for called, thing in vars(module).items():
        if called.startswith("_") or getattr(thing, "__module__", None) != name or not (inspect.isclass(thing) or inspect.isfunction(thing)):
            continue
        # A class without one is given its signature by dataclasses, which says nothing.
        if not said(thing) or (inspect.isclass(thing) and (thing.__doc__ or f"{called}(").startswith(f"{called}(")):
            silent.append(called)
        if inspect.isclass(thing):
            silent += silent_methods(thing)
    assert silent == []


def test_every_route_says_what_it_does(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    schema = create_app(store).openapi()
    silent = [
        f"{method} {path}" for path, methods in schema["paths"].items() for method, one in methods.items() if len(one.get("description", "")) < LEAST
    ]
    assert silent == []
    assert schema["paths"]
    store.close()


@pytest.mark.parametrize("path", SOURCES, ids=lambda path: path.name)
def test_components_and_modules_of_the_page_begin_with_what_they_are(path):
    text = path.read_text(encoding="utf-8")
    if path.suffix == ".vue":
        assert re.search(r"<script[^>]*>\s*/\*\*", text), "the script of a component begins with what it is"
        return
    assert text.startswith("/**"), "a module begins with what it is for"
    exported = re.findall(r"^(?:export )(?:async )?function (\w+)", text, flags=re.MULTILINE)
    described = set(re.findall(r"\*/\nexport (?:async )?function (\w+)", text))
    # Of a module with one function, its own words are about that.
    assert len(exported) == 1 or set(exported) <= described, sorted(set(exported) - described)
