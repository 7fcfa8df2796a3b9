"""Sounds: bringing files in, handing them out to be heard and seen, and the beats in them."""

from typing import Annotated

from fastapi import Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from vine_swing.formats.bundle import sound_ending
from vine_swing.formats.sounds import sound_table
from vine_swing.formats.soundtrack import wav
from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.basics.errors import MotionError, NoSuchThing
from vine_swing.motion.basics.values import Id
from vine_swing.motion.scene.beats import SOUND, beat_frames
from vine_swing.motion.sound import beats_a_minute
from vine_swing.motion.sound.analysis import PEAKS_A_SECOND, peaks_of
from vine_swing.motion.sound.reading import read_sound, sound_of, stereo_of
from vine_swing.service.api import api_router
from vine_swing.service.deps import SceneId, SessionsDep
from vine_swing.service.routes.bringing import FileName, TableWords, table_words
from vine_swing.service.routes.pictures import plain_name
from vine_swing.sounds import READY

router = api_router("sounds")
#: Bytes of one file.
MOST_BYTES = 60_000_000
_LASTING = {"cache-control": "public, max-age=31536000, immutable"}
_KINDS = {"wav": "audio/wav", "ogg": "audio/ogg", "flac": "audio/flac", "m4a": "audio/mp4", "mp3": "audio/mpeg"}


class BroughtSound(BaseModel):
    """A sound file that was brought in, to be put into a scene by the edit `add-sound`; `cut` says that only its beginning is used."""

    file: str
    name: str
    seconds: float
    cut: bool


class ReadySoundWords(BaseModel):
    """A sound that ships with the program; `minute`: its beats a minute, where it has a beat."""

    file: str
    name: str
    about: str
    seconds: float
    minute: float | None


class BeatWords(BaseModel):
    """Where something begins in a sound of a scene, as frames, in order, and how many that are a minute; null for fewer than four."""

    frames: list[float]
    minute: float | None


@router.post("/sounds", openapi_extra={"requestBody": {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}})
async def bring_sound(request: Request, name: FileName) -> BroughtSound:
    """Bring a sound in (WAV, MP3, Ogg, FLAC, AAC): its content is the body of the request. It is kept for good once a scene uses it."""
    data = bytearray()
    async for part in request.stream():
        data += part
        if len(data) > MOST_BYTES:
            raise MotionError(f"'{name}' has more than {MOST_BYTES / 1e6:.0f} MB; save it compressed (MP3, Ogg, FLAC), or cut it")
    return await run_in_threadpool(_brought, bytes(data), plain_name(name))


def _brought(data: bytes, name: str) -> BroughtSound:
    # Refused under its own name; what is good is kept, and stays decoded.
    file = SOUND_FILES.id_of(data)
    if not SOUND_FILES.has(file):
        read_sound(data, name)
        SOUND_FILES.keep(data)
    try:
        heard = sound_of(file)
    except MotionError:
        # Content of a scene that was refused may be known and be no sound: this file is refused under its own name too.
        read_sound(data, name)
        raise
    stem = name.rpartition(".")[0] or name
    return BroughtSound(file=file, name=stem, seconds=round(heard.seconds, 6), cut=heard.cut)


@router.get("/ready-sounds")
def ready_sounds() -> list[ReadySoundWords]:
    """The sounds that ship with the program, to be put into a scene like any other."""
    return [
        ReadySoundWords(
            file=(file := SOUND_FILES.keep(one.content)), name=one.label, about=one.about, seconds=round(sound_of(file).seconds, 6), minute=one.minute
        )
        for one in READY
    ]


@router.get("/sounds/{file}", response_class=Response, responses={200: {"content": {kind: {} for kind in _KINDS.values()}}})
def sound_file(file: str, sessions: SessionsDep, plain: bool = False) -> Response:
    """A sound as it was brought in; with `plain`, as WAV (two channels, 16 bits), for browsers that do not know its kind."""
    data = _known(file, sessions)
    if not plain:
        return Response(data, media_type=_KINDS[sound_ending(data)], headers=_LASTING)
    return Response(wav(stereo_of(file)), media_type="audio/wav", headers=_LASTING)


@router.get("/sounds/{file}/peaks", response_class=Response, responses={200: {"content": {"application/octet-stream": {}}}})
def sound_peaks(file: str, sessions: SessionsDep) -> Response:
    """The lowest and the highest sample of every hundredth of a second: pairs of signed bytes, −127…127."""
    _known(file, sessions)
    headers = _LASTING | {"x-columns-a-second": str(PEAKS_A_SECOND)}
    return Response(peaks_of(file).tobytes(), media_type="application/octet-stream", headers=headers)


@router.get("/sounds/{file}/table")
def table_of_sound(file: str, sessions: SessionsDep, fps: Annotated[float, Query(ge=1, le=240)]) -> TableWords:
    """How loud a sound is at each frame of a scene, in all of it and in three bands, and its beats, as a table to be laid down as keys."""
    _known(file, sessions)
    return table_words(sound_table(sound_of(file), fps))


@router.get("/scenes/{scene_id}/sounds/{sound_id}/beats")
def beats_of_sound(scene_id: SceneId, sound_id: Id, sessions: SessionsDep) -> BeatWords:
    """The beats of a sound, within the scene."""
    with sessions.use(scene_id) as used:
        scene = used.stored.scene
    frames = beat_frames(scene, f"{SOUND}{sound_id}")
    return BeatWords(frames=frames.round(4).tolist(), minute=beats_a_minute(frames / scene.fps))


def _known(file: str, sessions: SessionsDep) -> bytes:
    """The content of a sound, which is then where contents are looked up."""
    if not SOUND_FILES.has(file):
        data = sessions.store.content(file)
        if data is None or SOUND_FILES.id_of(data) != file:
            raise NoSuchThing(f"there is no sound '{file}'; it may have been let go")
        SOUND_FILES.keep(data)
    return SOUND_FILES.data_of(file)
