"""What a finding adds to the work: points on the step where it matters, and steps of its own. Common practice, findings vocabulary."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.work.conditions import Found
from drumwork.work.kinds.steps import Stop, Tick
from drumwork.work.plan import Step
from drumwork.work.words import Point

__all__ = [
    "BAD_STRANDS", "BARE_DRUM", "BARE_POINTS", "FINGER_POINTS", "HURT_ROD", "LIFT_POINTS", "MOUNT_POINTS", "NEW_HEAD_POINTS", "SLACKEN_POINTS", "TENSION_POINTS",
    "WRONG_GATE", "bare_drum_steps",
]  # fmt: skip

NEW_HEAD_POINTS = (
    Point("Flesh hoop bent: this head goes back. Take another of the line, or stop here", Found("flesh-hoop-bent")),
    Point("Torn or run: this head goes back. Take another of the line, or stop here", Found("split") | Found("run-in-mesh")),
)  # fmt: skip
SLACKEN_POINTS = (
    Point("A rod will not turn: no force. Slacken its neighbours evenly and leave it to the last", Found("rod-seized")),
    Point("Rod missing: its neighbours hold more; ease them in smaller steps", Found("rod-missing")),
)
LIFT_POINTS = (
    Point("Hoop out of round or cracked: a strip of tape where it is, before it comes off", Found("hoop-bent") | Found("hoop-cracked")),
)  # fmt: skip
BARE_POINTS = (
    Point("Mould or flaking coat: mask and gloves, wipe damp, bag the rag", Found("mould") | Found("flaking-coat")),
    Point("Dust or old wax on the edge: wipe it, feel again", Found("edge-dirty")),
    Point("Vent cleaned and snug", Found("vent-blocked")),
    Point("Muffling inside out, or renewed", Found("muffler-loose")),
    Point("Casing screws snug by hand, not hard", Found("casing-loose")),
)
FINGER_POINTS = (
    Point("The bent rod stays out: a straight one of the same thread and length in its place", Found("rod-bent")),
    Point("Dry thread: a spot of light grease, no more", Found("thread-dry")),
    Point("Gritty thread: wiped in a lightly oiled cloth until the cloth stays clean", Found("thread-gritty")),
    Point("Over-oiled thread: wiped dry, rod and insert", Found("thread-over-oiled")),
    Point("Shell out of round: the same gap to the hoop on both sides of the long way", Found("shell-oval")),
    Point("Hoop back in its old place first", Found("hoop-turned")),
    Point("Snare gate in line with strainer and butt plate before any rod takes hold", Found("gate-wrong")),
)
TENSION_POINTS = (
    Point("Rod missing: the two beside the gap a little extra; watch for wrinkles there", Found("rod-missing")),
    Point("A rod that does not draw is left; its neighbours and its partner no further than the rest", Found("thread-stripped") | Found("insert-loose")),
)  # fmt: skip
MOUNT_POINTS = (
    Point("Rattle: press parts until it stops; snug it, or a bit of cloth tape", Found("rattle")),
    Point("Leg missing: none is lent without a note; a drumstick in the bracket only as a stop-gap", Found("leg-missing")),
    Point("Rubber foot under bare metal before it stands on a floor", Found("foot-missing")),
    Point("Mount stripped: on a stand until it is repaired", Found("mount-stripped")),
    Point("Slides: spurs out, mat or carpet under it", Found("slides")),
)  # fmt: skip

HURT_ROD = Found("rod-bent") | Found("thread-gritty")
BAD_STRANDS = Found("strand-bent", 2) | Found("strand-broken") | Found("strand-missing") | Found("end-plate-bent")
WRONG_GATE = Found("gate-wrong")

BARE_DRUM = (Where.EDGE, Where.SHELL, Where.HOOP, Where.ROD, Where.INSIDE, Where.ANY)

_GRAVE = Found("shell-split") | Found("ply-lifting", 2)
_EDGE = Found("edge-chipped", 2) | Found("edge-flat", 2) | Found("bed-rough", 2)


def bare_drum_steps(side: Side | None, prefix: str = "") -> tuple[Step, ...]:
    """Steps that come up only when the bare drum shows something a bench must not mend."""
    return (
        Step(
            f"{prefix}stop-shell",
            "Stop",
            Stop(),
            "Stop here: a split shell or a lifting ply goes to a qualified person. The drum is out of service until it comes back.",
            side,
            (
                Point("Loosely assembled, so that nothing is lost or bent"),
                Point("Tag on it: not to be played"),
                Point("A fitted head may go on unstrained to keep dust out; no tension"),
            ),
            ("qualified",),
            _GRAVE,
            ("stop",),
            cites=("N12",),
            why="A bench that mends an edge or a shell by guess makes it worse; every head after it suffers.",
        ),
        Step(
            f"{prefix}edge-decide",
            "Edge",
            Tick(),
            "The edge is more than slightly hurt. A qualified person should see it; decide whether a head goes on meanwhile.",
            side,
            (
                Point("Its place marked with tape on the shell, and noted"),
                Point("A head fitted over it will clear badly there: say so to the owner"),
            ),
            ("qualified",),
            _EDGE,
            ("check-hardware",),
            cites=("N12",),
            why="A bench that mends an edge or a shell by guess makes it worse; every head after it suffers.",
        ),
        Step(
            f"{prefix}repair-draw",
            "Rod that will not draw",
            Tick(),
            "A stripped thread or a loose insert is not forced. Swap the insert if a spare lies here; else the drum is played without that rod.",
            side,
            (
                Point("Spare insert fitted, or the rod marked as not drawing"),
                Point("A rod is lent from another drum only with a note of it"),
            ),
            ("seized",),
            Found("thread-stripped") | Found("insert-loose") | Found("rod-seized"),
            ("repair",),
            cites=("N13",),
            why="Forced, a bad thread takes its rod and insert with it.",
        ),
    )
