"""Recorded drums at several strengths, by others: how many taps are taken, doubted, refused, and how many of one drum agree within 20 cents.

All kits of the Debian package hydrogen-drumkits that hold one drum at three strengths or more, fetched by `tools/recordings`, never committed. Sizes are guessed from what
the drum is called; the stroke falls anywhere on the head, so that what is read need not be the pair: what is asked is that soft and hard strokes of one drum read alike.
"""

from __future__ import annotations

import re
from collections import defaultdict
from pathlib import Path
from typing import NamedTuple

import numpy as np

from drumwork.commands.sound_files import read_sound
from drumwork.listening import Status, TapContext, TapReading, Where, listen_to_tap, usual_edge_hz
from drumwork.quantities import Length

FOLDER = Path(__file__).parents[1] / ".data" / "recordings" / "kits"
AGREE_CENTS = 20.0
SAME_PARTIAL_CENTS = 100.0
FEWEST = 3
DRUMS = (
    (r"TomLow|TM2|floortom|ft_|TomFloor", "tom", 16),
    (r"TomMid|Tom2|t2_|TM_", "tom", 13),
    (r"TomHigh|Tom1|t1_|tom_", "tom", 12),
    (r"Kick|BD_|bd_", "bass", 22),
    (r"SnareOff(?!Rim)|SN4", "snare", 14),
)
"""File names, the kind of drum and its width in inches, as guessed."""


class Recorded(NamedTuple):
    """One drum: its files from soft to hard as they are named."""

    drum: str
    kind: str
    inches: int
    files: tuple[Path, ...]

    @property
    def context(self) -> TapContext:
        width = Length.from_inches(self.inches)
        return TapContext(diameter=width, usual_hz=usual_edge_hz(width, self.kind))


def recorded_drums(folder: Path = FOLDER) -> list[Recorded]:
    """Every drum of the package with three strengths or more."""
    found: dict[tuple[str, str, int], list[Path]] = defaultdict(list)
    for file in sorted(folder.rglob("*")):
        told = next(((kind, inches) for names, kind, inches in DRUMS if re.search(names, file.name)), None)
        if told and file.suffix in {".wav", ".flac", ".aiff"}:
            stem = re.sub(r"[-_](\d+|Soft(est)?|Med|Hard(est)?)$", "", file.stem)
            found[f"{file.parent.name}/{stem}", *told].append(file)
    return [Recorded(*drum, tuple(files)) for drum, files in found.items() if len(files) >= FEWEST]


def heard(drum: Recorded, at: Where = Where.EDGE) -> list[TapReading]:
    """Every strength of a drum, as a tap by a rod with the guessed size, or as a stroke near the middle, where players strike."""
    context = drum.context if at is Where.EDGE else TapContext(at=at)
    return [listen_to_tap(*read_sound(file), context) for file in drum.files]


def agree(readings: list[TapReading]) -> int:
    """How many lie within 20 cents of one another: the most about any one of them."""
    hz = np.array([each.hz for each in readings if each.hz])
    if not len(hz):
        return 0
    apart = np.abs(1200 * np.log2(hz[:, None] / hz[None, :]))
    return int((apart <= AGREE_CENTS).sum(axis=1).max())


def spread_cents(readings: list[TapReading]) -> float | None:
    """How far apart the highest and the lowest lie of those that read the same partial: within 100 cents of their median."""
    hz = np.array([each.hz for each in readings if each.hz])
    if not len(hz):
        return None
    off = 1200 * np.log2(hz / np.median(hz))
    off = off[np.abs(off) < SAME_PARTIAL_CENTS]
    return float(off.max() - off.min()) if len(off) > 1 else None


def measure(drums: list[Recorded], at: Where) -> None:
    sums: dict[str, np.ndarray] = defaultdict(lambda: np.zeros(5, dtype=int))
    spreads: dict[tuple[str, bool], list[float]] = defaultdict(list)
    for drum in drums:
        read = heard(drum, at)
        told = [sum(each.status is status for each in read) for status in Status]
        sums[drum.kind] += np.array([len(read), *told, agree(read)])
        for taken_only in (False, True):
            spread = spread_cents([each for each in read if not taken_only or each.status is Status.OK])
            spreads[drum.kind, taken_only] += [spread] if spread is not None else []
        print(f"  {drum.drum:44} " + " ".join(f"{each.hz:6.1f}" if each.hz else "   –  " for each in read))
        for reason in sorted({each.reason for each in read if each.status is Status.REFUSE}):
            print(f"  {'':44} refused: {reason}")
    for kind, (count, ok, flagged, refused, alike) in sums.items():
        print(
            f"{kind}: {count} taps, ok {ok}, doubted {flagged}, refused {refused}; {alike} agree within {AGREE_CENTS:.0f} cents; "
            + "; ".join(
                f"from soft to hard {np.mean(spreads[kind, only]):.1f} cents (mean of {len(spreads[kind, only])} drums), median {np.median(spreads[kind, only]):.1f}, {words}"
                for only, words in ((False, "all"), (True, "those taken without doubt"))
                if spreads[kind, only]
            )
        )


def main() -> None:
    drums = recorded_drums()
    if not drums:
        raise SystemExit("The recordings are not there. Run tools/recordings; it needs the Debian archive.")
    for at, words in (
        (Where.CENTRE, "in the middle, where players strike"),
        (Where.EDGE, "at a rod, its size guessed"),
    ):
        print(f"Read as if struck {words}")
        measure(drums, at)


if __name__ == "__main__":
    main()
