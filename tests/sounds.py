"""Sounds that tests make themselves, as WAV files and as sounds of scenes."""

import io
import wave
from typing import Any

import numpy as np

from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.motion.sound.reading import sound_of

RATE = 22_050


def wav(samples, rate=RATE, channels=1):
    """A WAV file of 16 bits with the same samples, −1…1, in every channel."""
    data = io.BytesIO()
    with wave.open(data, "wb") as out:
        out.setnchannels(channels)
        out.setsampwidth(2)
        out.setframerate(rate)
        out.writeframes(np.repeat((np.clip(samples, -1, 1) * 32767).astype("<i2")[:, None], channels, axis=1).tobytes())
    return data.getvalue()


def struck(moments, seconds, *, rate=RATE, noise=0.0, sound="click", seed=1):
    """Strokes at some moments: clicks of noise, or the tones of a hollow log."""
    chance = np.random.default_rng(seed)
    samples = noise * chance.normal(size=int(seconds * rate))
    for moment in moments:
        t = np.arange(int(0.25 * rate)) / rate
        stroke = np.exp(-t * 60) * (chance.normal(size=len(t)) if sound == "click" else np.sin(2 * np.pi * 140 * t) * np.exp(-t * 4))
        begin = int(moment * rate)
        part = samples[begin : begin + len(stroke)]
        part += 0.7 * stroke[: len(part)]
    return samples


def kept(samples, rate=RATE, *, id: str = "drum", name: str = "Drum", **fields: Any) -> KeptSound:
    """A sound of a scene with these samples."""
    file = SOUND_FILES.keep(wav(samples, rate))
    return KeptSound(id=id, name=name, file=file, seconds=sound_of(file).seconds, **fields)
