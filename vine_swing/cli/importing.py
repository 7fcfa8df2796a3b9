"""`import`: a drawing, a bundle, a table or keys as a scene file, or into one."""

import argparse
from dataclasses import dataclass
from pathlib import Path

from vine_swing.cli.messages import read, say
from vine_swing.motion import MotionError, Scene, dump

_TABLES = (".csv", ".tsv", ".txt")
_SOUNDS = (".wav", ".mp3", ".ogg", ".opus", ".flac", ".m4a")
_OTHERS = (".svg", ".vine", ".json")


def add_options(bring: argparse.ArgumentParser) -> None:
    """Add the options of an import."""
    bring.add_argument(
        "file",
        type=Path,
        help="an SVG drawing, a bundle (.vine), a scene or keys (.json), a table (.csv), or a sound (.wav): heard, or with --column keys",
    )
    bring.add_argument("out", type=Path, help="the scene file to write")
    bring.add_argument("--into", type=Path, metavar="SCENE", help="the scene it is put into; tables, sounds and keys need one")
    bring.add_argument(
        "--column",
        action="append",
        default=[],
        metavar="NAME=OBJECT.CHANNEL",
        help="which column of a table goes where, such as 'Wind=Weather vane.rotation'; may be given more than once",
    )
    bring.add_argument("--time", metavar="NAME", help="the column of a table that says when; found by itself if left out")
    bring.add_argument("--unit", choices=("frames", "seconds"), help="what that column counts in; found by itself if left out")
    bring.add_argument("--first", type=float, default=0.0, help="the frame of time 0, or of the first row (default: %(default)s)")
    bring.add_argument("--tolerance", type=float, default=0.0, help="how far the motion may pass from any sample; 0 for a key on each")
    bring.set_defaults(run=import_file)


def import_file(options: argparse.Namespace) -> int:
    """Import a file; prints on standard error which parts could not be kept."""
    brought = _brought(options)
    for sentence in brought.lost:
        say(f"{options.file}: left out: {sentence}")
    options.out.write_text(dump(brought.scene), encoding="utf-8")
    print(f"{options.out}: '{brought.scene.name}', {len(brought.scene.objects)} objects, {brought.scene.length} frames")
    return 0


@dataclass(frozen=True)
class _Brought:
    scene: Scene
    lost: tuple[str, ...] = ()


def _brought(options: argparse.Namespace) -> _Brought:
    from vine_swing.formats.drawing import read_svg
    from vine_swing.motion.edits import apply_all
    from vine_swing.motion.edits.parcels import PlaceParcel

    suffix = options.file.suffix.lower()
    into = read(options.into) if options.into is not None else None
    if suffix in _SOUNDS and not options.column:
        return _Brought(_with_sound(into, options))
    if suffix in (*_TABLES, *_SOUNDS):
        return _Brought(_with_table(into, options))
    if suffix == ".svg":
        drawing = read_svg(options.file.read_bytes(), options.file.name)
        result, lost = drawing.scene, drawing.lost
    elif suffix not in _OTHERS:
        raise MotionError(
            f"{options.file}: '{suffix}' is no file to bring in here; take {', '.join((*_OTHERS, *_TABLES, *_SOUNDS))} (pictures come in by the page)"
        )
    elif (keyed := _with_keys(into, options.file)) is not None:
        return _Brought(keyed)
    else:
        result, lost = read(options.file), ()
    if into is None:
        return _Brought(result, lost)
    x, y = ((ours - theirs) / 2 for ours, theirs in zip(into.size, result.size, strict=True))
    prefix = next(f"in-{number}" for number in range(1, 10_000) if not any(item.startswith(f"in-{number}-") for item in into.by_id))
    return _Brought(apply_all(into, [PlaceParcel(edit="place-parcel", parcel=result, prefix=prefix, x=x, y=y)]), lost)


def _with_sound(into: Scene | None, options: argparse.Namespace) -> Scene:
    """A scene in which a sound is heard from a frame on; a new one, as long as the sound, where none is given."""
    import math

    from vine_swing.motion.basics.contents import SOUND_FILES
    from vine_swing.motion.basics.values import MAX_LENGTH
    from vine_swing.motion.edits import apply_all
    from vine_swing.motion.edits.figures import free_id
    from vine_swing.motion.edits.sounds import AddSound
    from vine_swing.motion.scene.sounds import KeptSound
    from vine_swing.motion.sound.reading import read_sound

    data, name = options.file.read_bytes(), options.file.stem[:70]
    seconds = round(read_sound(data, options.file.name).seconds, 6)
    first = round(options.first)
    scene = into or Scene(name=name, length=max(1, min(MAX_LENGTH, first + math.ceil(seconds * 24))))
    sound = KeptSound(id=free_id(scene.sounds_by_id, "sound"), name=name, file=SOUND_FILES.keep(data), seconds=seconds, first=first)
    return apply_all(scene, [AddSound(edit="add-sound", sound=sound)])


def _with_keys(into: Scene | None, path: Path) -> Scene | None:
    """The scene with keys from a file of keys; None where it is none."""
    import json

    from vine_swing.formats.keys import KEYS_FORMAT
    from vine_swing.motion.edits import apply_all
    from vine_swing.motion.edits.laying import BringKeys

    if path.suffix.lower() != ".json":
        return None
    try:
        data = json.loads(path.read_bytes())
    except ValueError:
        return None
    if not isinstance(data, dict) or data.get("format") != KEYS_FORMAT:
        return None
    if into is None:
        raise MotionError(f"{path} holds keys alone; name the scene they are for with --into")
    return apply_all(into, [BringKeys.model_validate({"edit": "bring-keys", "tracks": data.get("tracks", [])})])


def _with_table(into: Scene | None, options: argparse.Namespace) -> Scene:
    from vine_swing.formats.samples import read_table
    from vine_swing.formats.sounds import sound_table
    from vine_swing.motion.edits import apply_all
    from vine_swing.motion.edits.laying import LaySamples
    from vine_swing.motion.sound.reading import read_sound

    data, name = options.file.read_bytes(), options.file.name
    listens = options.file.suffix.lower() in _SOUNDS
    table = sound_table(read_sound(data, name), into.fps if into is not None else 24.0) if listens else read_table(data, name)
    names = [column.name for column in table.columns]
    if into is None or not options.column:
        raise MotionError(f"a table needs a scene and columns: --into SCENE --column 'NAME=OBJECT.CHANNEL'; it has {', '.join(names)}")
    time = table.time if options.time is None else _at(names, options.time)
    seconds = (options.unit or table.unit) == "seconds"
    tracks = []
    for requested in options.column:
        name, _, place = requested.partition("=")
        called, _, channel = place.rpartition(".")
        # Channels have dots in their names too: the longest name that an object has is the object's.
        owner = next((item for item in sorted(into.by_name, key=len, reverse=True) if place.startswith(f"{item}.")), called)
        channel = place[len(owner) + 1 :] if owner in into.by_name else channel
        dial = into.dials_by_name.get(place)
        if owner not in into.by_name and dial is None:
            raise MotionError(f"--column '{requested}': there is no '{owner or place}' in the scene; write NAME=OBJECT.CHANNEL, or NAME=DIAL")
        target = (into.by_name[owner].id, channel) if owner in into.by_name else (f"dial:{dial.id if dial else ''}", "value")
        cells = table.columns[_at(names, name)].cells
        when = table.columns[time].cells if time is not None else tuple(float(row) for row in range(table.rows))
        samples = [(moment, value) for moment, value in zip(when, cells, strict=True) if isinstance(moment, float) and value is not None]
        times, values = [sample for sample, _ in samples], [sample for _, sample in samples]
        tracks.append({"object": target[0], "channel": target[1], "times": times, "values": values})
    pace = into.fps if time is not None and seconds else 1.0
    supplied = {"edit": "lay-samples", "tracks": tracks, "first": options.first, "pace": pace, "tolerance": options.tolerance}
    return apply_all(into, [LaySamples.model_validate(supplied)])


def _at(names: list[str], name: str) -> int:
    if name not in names:
        raise MotionError(f"there is no column '{name}' in the table; it has {', '.join(names)}")
    return names.index(name)
