"""Sounds: bringing files in, handing them out to be heard and seen, and the beats in them."""

from typing import Annotated

from fastapi import Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse
from pydantic import BaseModel

from vine_swing.formats.bundle import sound_ending
from vine_swing.formats.isolated import ReadSound
from vine_swing.formats.sounds import sound_table
from vine_swing.formats.soundtrack import wav_parts, wav_size
from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.basics.values import Id
from vine_swing.motion.scene.beats import SOUND, beat_frames
from vine_swing.motion.sound import beats_a_minute
from vine_swing.motion.sound.analysis import PEAKS_A_SECOND, peaks_of
from vine_swing.motion.sound.reading import sound_of, stereo_of
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.files import FILE_BODY, file_body, plain_name
from vine_swing.service.routes.bringing import FileName, TableWords, table_words
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


@router.post("/sounds", openapi_extra=FILE_BODY)
async def bring_sound(request: Request, name: FileName, deadline: DeadlineDep) -> BroughtSound:
    """Bring a sound in (WAV, MP3, Ogg, FLAC, AIFF, AAC): its content is the body of the request. It is kept for good once a scene uses it."""
    shown = plain_name(name)
    data = await file_body(request, shown, MOST_BYTES, "save it compressed (MP3, Ogg, FLAC), or cut it")
    read: ReadSound = await run_in_threadpool(deadline.read, "sound", data, shown)
    stem = shown.rpartition(".")[0] or shown
    return BroughtSound(file=SOUND_FILES.keep(data, checked=True), name=stem, seconds=round(read.seconds, 6), cut=read.cut)


@router.get("/ready-sounds")
def ready_sounds() -> list[ReadySoundWords]:
    """The sounds that ship with the program, to be put into a scene like any other."""
    files = [SOUND_FILES.keep(one.content, checked=True) for one in READY]
    return [
        ReadySoundWords(file=file, name=one.label, about=one.about, seconds=round(sound_of(file).seconds, 6), minute=one.minute)
        for one, file in zip(READY, files, strict=True)
    ]


@router.get("/sounds/{file}", response_class=Response, responses={200: {"content": {kind: {} for kind in _KINDS.values()}}})
def sound_file(file: str, sessions: SessionsDep, plain: bool = False) -> Response:
    """A sound unchanged brought in; with `plain`, as WAV (two channels, 16 bits), for browsers that do not know its kind."""
    data = _known(file, sessions)
    if not plain:
        return Response(data, media_type=_KINDS[sound_ending(data)], headers=_LASTING)
    samples = stereo_of(file)
    return StreamingResponse(wav_parts(samples), media_type="audio/wav", headers=_LASTING | {"content-length": str(wav_size(samples))})


@router.get("/sounds/{file}/peaks", response_class=Response, responses={200: {"content": {"application/octet-stream": {}}}})
def sound_peaks(file: str, sessions: SessionsDep) -> Response:
    """The lowest and the highest sample of every hundredth of a second: pairs of signed bytes, −127…127."""
    _known(file, sessions)
    headers = _LASTING | {"x-columns-a-second": str(PEAKS_A_SECOND)}
    return Response(peaks_of(file).tobytes(), media_type="application/octet-stream", headers=headers)


@router.get("/sounds/{file}/table")
def table_of_sound(file: str, sessions: SessionsDep, fps: Annotated[float, Query(ge=1, le=240)]) -> TableWords:
    """How loud a sound is at each frame of a scene, in all and in three bands, and its beats, as a table to be written as keys as keys."""
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
            raise NoSuchThing(f"there is no sound '{file}'; it may have been deleted")
        SOUND_FILES.keep(data, checked=True)
    return SOUND_FILES.data_of(file)
