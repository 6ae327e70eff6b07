"""An archive on its way in: piece by piece onto the disk, on again after a break, then taken as a whole."""

from __future__ import annotations

import errno
import fcntl
import os
import re
import shutil
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import BinaryIO, Final

from django.conf import settings

from apps.archive.bounds import MOST_BYTES
from apps.archive.reading import Taken, require_empty, take
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["KEPT_S", "PIECE", "add_piece", "begin", "forget_old", "take_uploaded"]

PIECE: Final = 4 * 1024 * 1024
ROOM_LEFT: Final = 256 * 1024 * 1024
"""So much stays free on the disk for everything else."""
KEPT_S: Final = 2 * 24 * 3600
"""So long one that was broken off waits to go on."""
_KEY: Final = re.compile(r"[0-9a-f]{8,64}")


def _no_room() -> Refused:
    return Refused("disk_full", "This machine’s disk has no room for it. Make room, then choose the file again: what came stays.", 507)  # fmt: skip


def _part(member: Membership, key: str, size: int) -> Path:
    """Where it lies meanwhile."""
    if member.workshop.demo:
        raise Refused("demo_stays", "The demo stays as it is. Begin a workshop of your own first.", status=403)
    if not _KEY.fullmatch(key):
        raise Refused("bad_upload", "Choose the file again.", 422)
    if size > MOST_BYTES:
        raise Refused("too_large", "An archive may have two gigabytes at most. Ask whoever runs this for a backup instead.", 422)  # fmt: skip
    return Path(settings.UPLOADS) / f"{member.workshop_id}-{key}-{size}.part"


def begin(member: Membership, key: str, size: int) -> int:
    """How many bytes of this file are here already; one of another file is forgotten.

    Raises
    ------
    Refused
        for one too large, where the disk has no room, or where the workshop has records already.
    """
    part = _part(member, key, size)
    require_empty()
    part.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    for other in part.parent.glob(f"{member.workshop_id}-*.part"):
        if other != part:
            other.unlink(missing_ok=True)
    part.touch(mode=0o600)
    here = part.stat().st_size
    if shutil.disk_usage(part.parent).free - ROOM_LEFT < size - here:
        raise _no_room()
    return here


@contextmanager
def _held(part: Path) -> Iterator[BinaryIO]:
    """The file, by one at a time; whoever comes meanwhile is told so at once, and keeps no thread waiting."""
    try:
        file = part.open("r+b")
    except FileNotFoundError:
        raise Refused("no_upload", "Nothing of this file is here. Choose it again.", 404) from None
    with file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise Refused("busy", "This file is being read just now. Wait a moment.", 503) from None
        yield file


def add_piece(member: Membership, key: str, size: int, at: int, piece: bytes) -> int:
    """The piece that begins at byte `at`; how many bytes are here now. One that does not follow what is here changes nothing."""
    with _held(_part(member, key, size)) as file:
        here = file.seek(0, os.SEEK_END)
        if at != here:
            return here
        if len(piece) > PIECE or here + len(piece) > size:
            raise Refused("bad_upload", "More came than the file has. Choose it again.", 422)
        try:
            file.write(piece)
            file.flush()
        except OSError as error:
            file.truncate(here)
            if error.errno in (errno.ENOSPC, errno.EDQUOT):
                raise _no_room() from error
            raise
        return here + len(piece)


def take_uploaded(member: Membership, key: str, size: int) -> Taken:
    """Into the workshop, once all of it is here. What was taken, or cannot be, is deleted."""
    part = _part(member, key, size)
    with _held(part) as file:
        if file.seek(0, os.SEEK_END) != size:
            raise Refused("not_whole", "The file is not here as a whole yet. Choose it again; what came stays.", 409)
        try:
            found = take(file, size, member)
        except Refused as error:
            if error.status == 422:
                part.unlink(missing_ok=True)
            raise
        part.unlink(missing_ok=True)
    return found


def forget_old() -> int:
    """Those nobody went on with; how many went."""
    folder, since = Path(settings.UPLOADS), time.time() - KEPT_S
    old = [each for each in folder.glob("*.part") if each.stat().st_mtime < since] if folder.is_dir() else []
    for each in old:
        each.unlink(missing_ok=True)
    return len(old)
