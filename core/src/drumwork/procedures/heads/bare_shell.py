"""Both heads off and the bare shell in hand: cleaned once between two new heads, or stripped for shell work and put together again (trade §3, §18).

Common practice, no published source.
"""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.heads.both_heads import NEW_HEADS, WRITE_BOTH, both_effects, closing_both
from drumwork.procedures.shared import closings, openings
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.procedures.shared.one_head import put_on, take_off
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.work import effects
from drumwork.work.conditions import Has
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Needs
from drumwork.work.kinds.steps import Stop, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BARE_SHELL", "SHELL_WORK"]

_BARE = Needs(head=(HeadIs.OFF,), other=(HeadIs.OFF,))


def _off(first: Side, drum: DrumFacts) -> tuple[Step, ...]:
    """The head that goes on last comes off first: so the shell is turned least."""
    second = first.other
    return (
        *take_off(second, drum, f"{second.value}-"),
        *take_off(first, drum, f"{first.value}-"),
        openings.inside_out(None),
    )


def _on(first: Side, drum: DrumFacts) -> tuple[Step, ...]:
    second = first.other
    return (
        *put_on(first, drum, f"{first.value}-"),
        openings.inside_in(second, f"{second.value}-"),
        *put_on(second, drum, f"{second.value}-"),
    )


def _clean() -> Step:
    return replace(
        openings.clean(None),
        say="Clean both edges, the shell inside and out, and both hoops. Feel both edges all round.",
        needs=_BARE,
    )


def _new(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    first = ways.first_head.on(drum.traits)
    return (
        openings.lay_out(None, NEW_HEADS, first.other),
        openings.ring_out(None),
        openings.mark(None, both=True),
        *_off(first, drum),
        _clean(),
        *bare_drum_steps(None),
        *_on(first, drum),
        *closing_both(first, drum, WRITE_BOTH),
    )


_BOXES = Point("A box or bag for each kind of part, and labels")
_HARDWARE_OFF = Step(
    "hardware-off",
    "Take the hardware off",
    Tick(),
    "Take off casings, mounts and badge, as far as the work asks. Each part goes with its own screws into its own bag, in order round the shell.",
    None,
    (
        Point("A photograph of every place before it is bare"),
        Point("Strainer and butt plate too, the wires with them", Has("wires")),
        Point("A riveted badge stays on: masked, not pulled"),
    ),
    does=("check-hardware",),
    tools=("small screwdriver", "bags", "labels", "marker"),
    cites=("§3", "N13"),
    looks_at=(Where.HARDWARE, Where.ROD, Where.SHELL, Where.ANY),
    needs=_BARE,
    why="Mixed screws and washers vanish, or come back as rattles.",
)
_AWAY = Step(
    "shell-away",
    "Shell to the workshop",
    Stop(),
    "Hand the bare shell to a qualified person, with what is to be done in writing. Go on here when it is back.",
    None,
    (
        Point("The drum’s tag goes with the shell"),
        Point("Hoops and heads lie flat and marked, rods hanging in their hoops"),
    ),
    ("qualified",),
    does=("stop",),
    tools=("tag",),
    cites=("§18",),
    needs=_BARE,
    why="A bench that mends an edge or a shell by guess makes it worse; every head after it suffers.",
)
_HARDWARE_ON = Step(
    "hardware-on",
    "Put the hardware back",
    Tick(),
    "Put every part back where it was, by the photographs. Screws snug by hand, not hard.",
    None,
    (
        Point("Nothing left over in the bags"),
        Point("Lacquer or glue dry to the touch everywhere before a part sits on it"),
        Point("Strainer and butt plate in line across the bed", Has("wires")),
    ),
    ("driver",),
    does=("check-hardware",),
    tools=("small screwdriver",),
    cites=("§3",),
    looks_at=(Where.HARDWARE, Where.STRAINER, Where.SHELL),
    needs=_BARE,
    why="Loose screws rattle; hard ones crack what was just mended.",
)


def _head_back(step: Step) -> Step:
    """The head that came off goes on again where it sat."""
    if not step.id.endswith("set-head"):
        return step
    return replace(
        step,
        say="Lay the head that came off back on by its marks, even on the edge, then the hoop on its marks.",
        points=(
            *step.points,
            Point("Reworked edge: a seated head may not sit on it. Then a new one is the better choice"),
        ),
    )


def _shell_work(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    first = ways.first_head.on(drum.traits)
    return (
        openings.lay_out(None, _BOXES, first.other),
        openings.ring_out(None),
        openings.mark(None, both=True),
        *_off(first, drum),
        _HARDWARE_OFF,
        _AWAY,
        _clean(),
        *bare_drum_steps(None),
        _HARDWARE_ON,
        *(_head_back(step) for step in _on(first, drum)),
        *closing_both(first, drum, "Close the job. It goes into the drum's history.", writes=False),
    )


def _shell_effects(part: Part) -> tuple[Effect, ...]:
    read = [effect for side in Side for effect in closings.read_on(side)]
    booked = [effects.BookCheck(side) for side in Side]
    done = effects.Log("done", "Stripped for shell work and put together again")
    return (*read, effects.CarryFindings(), effects.KeepAnswers(), done, *booked)


BARE_SHELL = Procedure(
    id="bare-shell",
    version=1,
    title="Both heads, the bare shell cleaned between",
    parts=(Part.HEADS,),
    suits=film_on_rods,
    steps=_new,
    effects=both_effects,
    cites=("§3", "§7"),
    changes_heads=True,
    minutes=90,
    rank=31,
)
SHELL_WORK = Procedure(
    id="shell-work",
    version=1,
    title="Strip for shell work, and put together again",
    parts=(Part.DRUM,),
    suits=film_on_rods,
    steps=_shell_work,
    effects=_shell_effects,
    cites=("§3", "§18", "N13"),
    minutes=120,
    rank=84,
)
