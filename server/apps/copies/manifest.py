"""What a backup says of itself: `manifest.json`, the first thing in its file."""

from __future__ import annotations

import hashlib
import json
import tarfile
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import IO, Final

from apps.copies.errors import CannotCopy

__all__ = ["DUMP", "FORMAT", "MANIFEST", "Manifest", "checksum", "opened", "read_manifest"]

FORMAT: Final = 1
MANIFEST: Final = "manifest.json"
DUMP: Final = "database.dump"
BLOCK: Final = 1 << 20


@dataclass(frozen=True)
class Manifest:
    """`counts`: rows by table. `migrations`: the state the tables were in. `sha256` and `size`: of the dump."""

    format: int
    made_at: str
    server: str
    migrations: list[str]
    counts: dict[str, int]
    sha256: str
    size: int

    @property
    def rows(self) -> int:
        return sum(self.counts.values())

    def to_json(self) -> bytes:
        return (json.dumps(asdict(self), indent=1, ensure_ascii=False) + "\n").encode()


def checksum(of: IO[bytes]) -> str:
    found = hashlib.sha256()
    while block := of.read(BLOCK):
        found.update(block)
    return found.hexdigest()


def opened(file: Path) -> tarfile.TarFile:
    """
    Raises
    ------
    CannotCopy
        when there is no such file, or it is no backup of ours.
    """
    try:
        return tarfile.open(file, "r:")
    except FileNotFoundError as error:
        raise CannotCopy(f"There is no file {file}.") from error
    except (tarfile.TarError, OSError) as error:
        raise CannotCopy(f"{file} is no backup of Red Tally, or is cut off: {error}") from error


def member(archive: tarfile.TarFile, name: str) -> IO[bytes]:
    try:
        found = archive.extractfile(name)
    except (KeyError, tarfile.TarError, OSError) as error:
        raise CannotCopy(f"There is no {name} in it: this is no backup of Red Tally, or it is cut off.") from error
    if found is None:
        raise CannotCopy(f"{name} in it is no file: this is no backup of Red Tally.")
    return found


def read_manifest(archive: tarfile.TarFile) -> Manifest:
    try:
        said = json.load(member(archive, MANIFEST))
        if said.get("format", 0) > FORMAT:
            raise CannotCopy("This backup was made by a newer Red Tally. Bring this one up to date first.")
        return Manifest(**said)
    except (ValueError, TypeError, AttributeError) as error:
        raise CannotCopy("The manifest of this backup cannot be read; take another copy.") from error
