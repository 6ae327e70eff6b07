"""Sound files in and out, within stated bounds."""

from __future__ import annotations

from pathlib import Path
from typing import BinaryIO, Final

import numpy as np
import soundfile  # type: ignore[import-untyped]  # it ships no types
from numpy.typing import NDArray

from drumwork.errors import BadSound
from drumwork.listening.prepare import HIGHEST_RATE, LOWEST_RATE

__all__ = ["LONGEST_S", "read_sound", "write_sound"]

LONGEST_S: Final = 300.0
FORMATS: Final = ("WAV", "WAVEX", "RF64", "FLAC", "AIFF", "OGG")


def read_sound(source: Path | BinaryIO, name: str = "") -> tuple[NDArray[np.float64], int]:
    """(n, channels) samples, full scale 1, and their rate, of a file or what was sent as one.

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
            return sound.read(dtype="float64", always_2d=True), int(sound.samplerate)
    except (soundfile.SoundFileError, RuntimeError) as error:
        raise BadSound("This file cannot be read as sound. WAV, FLAC, AIFF and OGG are taken.", file=name) from error


def _require_taken(sound: soundfile.SoundFile, name: str) -> None:
    if sound.format not in FORMATS:
        raise BadSound(f"{sound.format} is not taken; save it as WAV, FLAC, AIFF or OGG.", file=name)
    if not LOWEST_RATE <= sound.samplerate <= HIGHEST_RATE:
        raise BadSound(f"Sound is taken at {LOWEST_RATE} to {HIGHEST_RATE} samples a second.", file=name)
    if sound.frames > LONGEST_S * sound.samplerate:
        raise BadSound(f"Recordings of up to {LONGEST_S:.0f} seconds are taken; cut this one down.", file=name)


def write_sound(path: Path, samples: NDArray[np.float64], rate: int) -> None:
    """One channel as 16-bit WAV, at most full scale."""
    soundfile.write(str(path), np.clip(samples, -1, 1), rate, subtype="PCM_16", format="WAV")
