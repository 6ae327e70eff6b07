"""Sound files in and out, within stated bounds."""

from __future__ import annotations

from pathlib import Path
from typing import BinaryIO, Final

import numpy as np
import soundfile  # type: ignore[import-untyped]  # it ships no types
from numpy.typing import NDArray

from drumwork.errors import BadSound
from drumwork.listening.prepare import HIGHEST_RATE, LOWEST_RATE

__all__ = ["LONGEST_S", "from_pcm", "read_sound", "write_sound"]

LONGEST_S: Final = 300.0
MOST_CHANNELS: Final = 8
MOST_SAMPLES: Final = 14_400_000
"""Of all channels together: five minutes of one at 48 000 a second. With it the memory that reading and cutting need is bounded."""
BLOCK: Final = 1 << 16
FORMATS: Final = ("WAV", "WAVEX", "RF64", "FLAC", "AIFF", "OGG")


def read_sound(source: Path | BinaryIO, name: str = "") -> tuple[NDArray[np.float32], int]:
    """(n, channels) samples, full scale 1, and their rate, of a file or what was sent as one.

    What its header says is held against the bounds before anything is decoded, and what is decoded against what the header said.

    Raises
    ------
    BadSound
        for a file that cannot be read, of another format, or beyond the stated bounds.
    """
    name = name or str(source)
    if isinstance(source, Path) and not source.is_file():
        raise BadSound(f"There is no file {name}.", file=name)
    try:
        with soundfile.SoundFile(str(source) if isinstance(source, Path) else source) as sound:
            _require_taken(sound, name)
            return _decoded(sound), int(sound.samplerate)
    except (soundfile.SoundFileError, RuntimeError) as error:
        raise BadSound("This file cannot be read as sound. WAV, FLAC, AIFF and OGG are taken.", file=name) from error


def _require_taken(sound: soundfile.SoundFile, name: str) -> None:
    if sound.format not in FORMATS:
        raise BadSound(f"{sound.format} is not taken; save it as WAV, FLAC, AIFF or OGG.", file=name)
    if not LOWEST_RATE <= sound.samplerate <= HIGHEST_RATE:
        raise BadSound(f"Sound is taken at {LOWEST_RATE} to {HIGHEST_RATE} samples a second.", file=name)
    if sound.channels > MOST_CHANNELS:
        raise BadSound(f"Sound of up to {MOST_CHANNELS} channels is taken.", file=name)
    if sound.frames > LONGEST_S * sound.samplerate:
        raise BadSound(f"Recordings of up to {LONGEST_S:.0f} seconds are taken; cut this one down.", file=name)
    if sound.frames * sound.channels > MOST_SAMPLES:
        most = MOST_SAMPLES / sound.samplerate / sound.channels
        raise BadSound(
            f"At {sound.samplerate} samples a second and {sound.channels} channels up to {most:.0f} seconds are taken; "
            "cut this one down, or save it with one channel.",
            file=name,
        )


def _decoded(sound: soundfile.SoundFile) -> NDArray[np.float32]:
    """Block by block into the room its header asked for, and no further."""
    samples = np.zeros((sound.frames, sound.channels), dtype=np.float32)
    at = 0
    while at < len(samples):
        read = sound.read(out=samples[at : at + BLOCK])
        if not len(read):
            break
        at += len(read)
    return samples[:at]


def from_pcm(pcm: bytes) -> NDArray[np.float64]:
    """One channel from 16-bit little-endian samples; full scale is 1.

    Raises
    ------
    BadSound
        for what is none.
    """
    if not pcm or len(pcm) % 2:
        raise BadSound("That was no sound: 16-bit samples of one channel are taken.")
    return np.frombuffer(pcm, dtype="<i2").astype(np.float64) / 32768


def write_sound(path: Path, samples: NDArray[np.float64], rate: int) -> None:
    """One channel as 16-bit WAV, at most full scale.

    Raises
    ------
    BadSound
        where it cannot be written.
    """
    try:
        soundfile.write(str(path), np.clip(samples, -1, 1), rate, subtype="PCM_16", format="WAV")
    except (soundfile.SoundFileError, OSError) as error:
        raise BadSound(
            f"{path} cannot be written. Is there such a folder, and may you write there?", file=str(path)
        ) from error
