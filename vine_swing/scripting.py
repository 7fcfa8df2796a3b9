"""What scripts use, offered as `from vine_swing import …`: scenes are read, changed by edits, baked to arrays and exported."""

from contextlib import closing
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from vine_swing.formats import format_by_name
from vine_swing.formats.bundle import read_scene
from vine_swing.formats.engine.choice import engine_at
from vine_swing.formats.export import Progress, never_cancelled
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.run import Written, write
from vine_swing.motion import MotionError, Scene, bake, dump, parse
from vine_swing.motion.edits import AnyEdit, apply_all

__all__ = ["MotionError", "Scene", "bake", "dump", "edit", "export", "load", "parse"]

_EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def load(path: str | Path) -> Scene:
    """A scene from a scene file or a bundle.

    Raises:
        MotionError: naming the place in the file that is wrong.
        OSError: if it cannot be read.
    """
    return read_scene(Path(path).read_bytes())


def edit(scene: Scene, *edits: dict[str, Any]) -> Scene:
    """A scene after some edits, as docs/edits.md describes them; the scene given is left as it is.

    Raises:
        MotionError: naming the edit that does not fit.
    """
    try:
        return apply_all(scene, _EDITS.validate_python(edits))
    except ValidationError as error:
        raise _refused("edit", error) from error


def export(scene: Scene, path: str | Path, *, farm: str | None = None, progress: Progress = never_cancelled, **options: Any) -> Written:
    """Export a scene in the format that the ending of a path asks for.

    farm: the address of a scheduler whose machines paint. progress: called with the number of pictures made; the export ends when it gives False.
    options: fields of ExportOptions, such as scale=0.5, first=0, last=47, fps=12, background="none".

    Raises:
        MotionError: saying what cannot be. No file is left then.
    """
    try:
        chosen = ExportOptions.model_validate({"format": format_by_name(Path(path).name).name, **options})
    except ValidationError as error:
        raise _refused("option", error) from error
    with closing(engine_at(farm)) as engine:
        return write(scene, chosen, Path(path), engine=engine, progress=progress)


def _refused(what: str, error: ValidationError) -> MotionError:
    """The first fault of what was handed in, as a sentence."""
    fault = error.errors(include_url=False)[0]
    return MotionError(f"{what} {'.'.join(map(str, fault['loc']))}: {fault['msg']}")
