"""Files that are small on the disk and huge in memory are refused by their header; the worst that is taken needs a bounded memory."""

from __future__ import annotations

import io
import struct
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
import soundfile

from drumwork.commands.sound_files import LONGEST_S, MOST_SAMPLES, read_sound
from drumwork.errors import BadSound

CEILING_MB = 900


def silence(path: Path, seconds: float, rate: int, channels: int) -> Path:
    """Silence as FLAC: a few bytes a second."""
    with soundfile.SoundFile(str(path), "w", rate, channels, "PCM_16", format="FLAC") as file:
        block = np.zeros((rate, channels), dtype=np.int16)
        for _ in range(int(seconds)):
            file.write(block)
    return path


def flac_that_says(frames: int) -> bytes:
    """A FLAC whose STREAMINFO claims so many samples (RFC 9639, section 8.2: 36 bits of them after rate, channels and depth)."""
    file = io.BytesIO()
    soundfile.write(file, np.zeros(4096, dtype=np.int16), 44_100, format="FLAC")
    data = bytearray(file.getvalue())
    (packed,) = struct.unpack(">Q", data[18:26])
    data[18:26] = struct.pack(">Q", (packed & ~((1 << 36) - 1)) | frames)
    return bytes(data)


@pytest.mark.parametrize(
    ("seconds", "rate", "channels", "words"),
    [(301, 8_000, 1, "300 seconds"), (76, 96_000, 2, "one channel"), (38, 48_000, 8, "one channel")],
)
def test_more_than_is_taken_is_refused(tmp_path: Path, seconds: int, rate: int, channels: int, words: str) -> None:
    file = silence(tmp_path / "a.flac", seconds, rate, channels)
    assert file.stat().st_size < 1_500_000
    with pytest.raises(BadSound, match=words):
        read_sound(file)


def test_more_channels_than_any_recorder_has_are_refused() -> None:
    file = io.BytesIO()
    soundfile.write(file, np.zeros((100, 9), dtype=np.int16), 44_100, format="WAV")
    file.seek(0)
    with pytest.raises(BadSound, match="8 channels"):
        read_sound(file, "a.wav")


@pytest.mark.parametrize("frames", [1 << 35, (1 << 36) - 1, int(LONGEST_S * 44_100), 1, 0])
def test_a_header_that_lies_makes_no_room_for_what_it_says(frames: int) -> None:
    """Too much is refused before it is decoded; less than there is, or more, gives no more than there is."""
    try:
        samples, _ = read_sound(io.BytesIO(flac_that_says(frames)), "a.flac")
    except BadSound:
        return
    assert len(samples) <= 4096


def test_the_worst_that_is_taken_needs_a_bounded_memory(tmp_path: Path) -> None:
    """Five minutes with taps in them, read and cut, in a process of its own; its high-water mark is Linux's own."""
    status = Path("/proc/self/status")
    if not status.exists():
        pytest.skip("the high-water mark of memory is read from Linux's /proc")
    rate, file = 48_000, tmp_path / "long.flac"
    block = np.zeros(rate, dtype=np.float64)
    block[: rate // 2] = np.sin(2 * np.pi * 200 * np.arange(rate // 2) / rate) * np.exp(
        -np.arange(rate // 2) / rate * 12
    )
    with soundfile.SoundFile(str(file), "w", rate, 1, "PCM_16", format="FLAC") as out:
        for _ in range(MOST_SAMPLES // rate):
            out.write(block)
    script = (
        "import pathlib, re, sys\n"
        "from drumwork.commands.sound_files import read_sound\n"
        "from drumwork.listening import split_taps\n"
        "cuts = split_taps(*read_sound(pathlib.Path(sys.argv[1])))\n"
        "print(len(cuts), int(re.search(r'VmHWM:\\s+(\\d+)', pathlib.Path('/proc/self/status').read_text())[1]) // 1024)\n"
    )
    ran = subprocess.run([sys.executable, "-c", script, str(file)], capture_output=True, text=True, check=True)
    cuts, megabytes = map(int, ran.stdout.split())
    print(f"{cuts} taps cut, at most {megabytes} MB")
    assert cuts > 200
    assert megabytes < CEILING_MB
