"""A rope-tension concert bass: a new head, and the rope brought to its range again (trade §14, F10, F11).

Common practice, no published source.
"""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings
from drumwork.procedures.shared.found import BARE_POINTS, bare_drum_steps
from drumwork.procedures.shared.suits import rope
from drumwork.work import effects
from drumwork.work.asks import Question, read_and_done
from drumwork.work.cautions import CautionId
from drumwork.work.conditions import Found, Way
from drumwork.work.effects import Effect
from drumwork.work.hand import ANYHOW, AS_BEFORE, HeadIs, Lacing, Leaves, Needs, Up
from drumwork.work.kinds.steps import Rest, Tick
from drumwork.work.pictures import Picture
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.tags import Tag
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point, Text

__all__ = ["NEW_ROPE_HEAD", "ROPE_RANGE"]

_ROPE = (Where.ROPE,)
_LOGO = "New head on, {logo}, its hoop over it. Hooks midway between the rope holes, the knot at the bottom."


def _step(
    name: str, title: str, say: Text, *points: Point, does: tuple[Tag, ...] = (), tools: tuple[str, ...] = (),
    cautions: tuple[CautionId, ...] = (), cites: tuple[str, ...] = ("§14",), side: Side | None = None, looks: tuple[Where, ...] = _ROPE,
    picture: Picture = "", asks: tuple[Question, ...] = (), recalls: tuple[str, ...] = (),
    needs: Needs = ANYHOW, leaves: Leaves = AS_BEFORE, why: str = "", if_so: bool = False,
) -> Step:  # fmt: skip
    return Step(
        name,
        title,
        Tick(),
        say,
        side,
        points,
        cautions,
        does=does,
        tools=tools,
        cites=cites,
        looks_at=looks,
        picture=picture,
        asks=asks,
        recalls=recalls,
        needs=needs,
        leaves=leaves,
        why=why,
        if_so=if_so,
    )


def _pitch(name: str, words: str, keeps: str = "") -> Question:
    return Question(name, words, unit="pitch", keeps=keeps)


def _pulled(name: str) -> Question:
    return Question(name, "Each segment was pulled", unit="length")


_PULL_READ = read_and_done("pull-read", "gloves on, two of us, nobody in line with the rope")
_NOW = (_pitch("low-before", "Ears up, now"), _pitch("high-before", "Ears down, now"))
_WANTED = (
    _pitch("wanted-low", "Lowest wanted", "rope wanted from"),
    _pitch("wanted-high", "Highest wanted", "rope wanted to"),
)
_AFTER = (_pitch("low", "Ears up", "rope range from"), _pitch("high", "Ears down", "rope range to"))
_AGAIN = (
    _pitch("low-again", "Ears up, after it", "rope range from"),
    _pitch("high-again", "Ears down, after it", "rope range to"),
)
_LAY_OUT = _step(
    "lay-out", "Lay out", "Drum on the table, knot side down, two people. Rope kept off the floor from here on.",
    Point("Rope looked along: no frayed place, no hard kink"),
    Point("Frayed rope: a new one before it is loaded again", Found("rope-frayed")),
    Point("Ears counted; torn ones laid out new"),
    does=("lay-out",), tools=("table", "rags", "tape", "marker", "gloves", "cord for a temporary tie"), cautions=("two-people",),
    looks=(Where.ROPE, Where.HEAD, Where.HOOP),
    leaves=Leaves(up=Up.HAND),
    why="Knot down, it is easier to unlace; rope on the floor carries in dust.",
)  # fmt: skip
_ROPE_LENGTH = (
    Question("rope-holes", "Holes in each hoop", unit="count", keeps="holes in each hoop"),
    Question("rope-hoop", "How high a hoop is", unit="length", keeps="hoop height"),
)
_FELT = (
    Question("pairs", "Pairs of ropes all round", unit="count", keeps="pairs of ropes"),
    Question("pairs-slack", "Slack ones, counted from the splice", own=True),
    Question("pairs-tight", "Tight ones", own=True),
)
_LAY_OUT_NEW = replace(_LAY_OUT, asks=_ROPE_LENGTH)
"""With a new head a rope is often renewed: how long it must be is said."""
_MARK = _step(
    "mark", "Mark", "Tape hoop, shell and rope where they meet at the splice, and which way the ears face. Read the range it has now: ears up, ears down.",
    Point("Range noted before anything is loosened"),
    does=("mark",), tools=("tape", "marker"), asks=(*_NOW, *_WANTED),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="The range it had is the only measure of the range it gets.",
    if_so=True,
)  # fmt: skip
_EARS_OFF = _step(
    "ears-off", "Ears up", "Slide every ear up until it no longer draws its pair together, going round in opposite pairs.",
    Point("None forced: a stuck ear is worked free with the fingers"),
    picture="ears-up", does=("ears-off",), cautions=("rope",),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="With ears down it would come loose under load.",
    if_so=True,
)  # fmt: skip
_UNTIE = _step(
    "untie", "Untie", "Undo the drag-rope chain, then the end knot, then the pigtail, holding the load until it is slack.",
    Point("Wraps of the pigtail counted"),
    does=("unlace",), cautions=("rope",), cites=("§14", "F10"), asks=(read_and_done("rope-read", "face away, nobody in line with the rope"),),
    needs=Needs(lacing=(Lacing.TIED,)),
    leaves=Leaves(lacing=Lacing.OPEN),
    if_so=True,
    why="A wrap let go under load snaps back.",
)  # fmt: skip


def _unlace(side: Side, both: bool) -> Step:
    return _step(
        "unlace", "Unlace",
        "Unlace about a third of the drum, no more: enough to slide both heads out, one after the other. Take off the first ears as they come."
        if both
        else "Unlace about a third of the drum, no more: enough to slide the head out. Take off the first ears as they come.",
        Point("Rope twisted along its lay to pass a tight hole, never against it"),
        Point("Slack shared round, so that the hoop lifts alike everywhere"),
        picture="unlace", does=("unlace",), cautions=("rope",), cites=("§14", "F11"), side=side,
        needs=Needs(lacing=(Lacing.OPEN,), up=(Up.HAND,)),
        leaves=Leaves(lacing=Lacing.UNLACED, head=HeadIs.SLACK, other=HeadIs.SLACK),
        if_so=True,
        why="More than a third is re-laced for nothing; slack that is not shared jams the head.",
    )  # fmt: skip


def _head(side: Side) -> tuple[Step, ...]:
    return (
        _step(
            "slide-out", "Head out", "Slide the old head out from under its hoop.",
            Point("Old head kept for the close: it is logged with its reason"),
            does=("lift-off", "slide-head"), cautions=("burrs",), side=side, looks=(Where.HEAD, Where.HOOP, Where.EDGE),
            needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,), lacing=(Lacing.UNLACED,)),
            leaves=Leaves(head=HeadIs.OFF),
            why="Pulled at one side, it jams under the hoop.",
        ),
        Step(
            "clean", "Clean", Tick(), "Clean the edge and the hoop's inner face; feel the edge all round. A touch of wax only where it is dry.", side,
            (Point("Edge smooth all round, no chip or dip"), *BARE_POINTS),
            ("dust", "solvent"), does=("clean-edge", "check-hardware"), tools=("rags", "wax"), cites=("§14", "§3"),
            looks_at=(Where.EDGE, Where.SHELL, Where.HOOP, Where.ANY),
            needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,)),
            why="Dust under the film spoils contact and sound.",
        ),
        *bare_drum_steps(side),
        _step(
            "set-head", "Set head",
            (
                Case(Way("logo", "badge"), _LOGO.replace("{logo}", "logo at the badge")),
                Case(Way("logo", "between-lugs"), _LOGO.replace("{logo}", "logo between two ropes")),
                Case(Way("logo", "twelve-oclock"), _LOGO.replace("{logo}", "logo at twelve o'clock as the drum stands")),
                Case(Way("logo", "throw-off") | Way("logo", "opposite-leg"), _LOGO.replace("{logo}", "logo at the top as the drum stands")),
            ),
            Point("Head flat on the edge all round"), Point("Hoop on its mark"),
            does=("set-head", "slide-head", "set-hoop"), tools=("the new head",), side=side, looks=(Where.HEAD, Where.HOOP),
            needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,)),
            leaves=Leaves(head=HeadIs.SLACK),
            why="Turned later, all is loosened again, or hooks foul the rope.",
        ),
    )  # fmt: skip


_SLACK = _step(
    "slack", "Take up slack", "From the eye splice on, segment by segment, draw the slack along until every rope is straight. Straight, not tight.",
    Point("The splice lies snug first"), Point("Nothing skipped: slack is carried to the end, never left behind"),
    picture="slack", does=("take-up-slack",), cautions=("rope",), tools=("gloves",),
    needs=Needs(lacing=(Lacing.UNLACED, Lacing.OPEN,)),
    why="Slack left behind the splice has nowhere to go; tight early pulls the shell askew.",
)  # fmt: skip
_THREAD = _step(
    "re-thread", "Re-thread", "Lace the gap again: up through an ear, in at one hole of the hoop and out at the next, down through the same ear, and on to the splice.",
    Point("Every ear goes on now, all facing the same way, slid up: later none can"), Point("Each hook over the middle of its pair of holes"),
    Point("An ear that slips is set again or renewed", Found("ear-slips")),
    picture="ears-on", does=("re-thread", "ears-on"), tools=("spare leather ear", "gloves"), cautions=("rope",),
    needs=Needs(lacing=(Lacing.UNLACED,)),
    leaves=Leaves(lacing=Lacing.OPEN),
    why="An ear that is forgotten means the gap is unlaced again; one turned round mars the shell.",
)  # fmt: skip
_TIE = _step(
    "tie", "Temporary tie", "Tie the end off with a slip, so that nothing runs back while you look.",
    does=("take-up-slack",), tools=("cord for a temporary tie",), cautions=("rope",),
    needs=Needs(lacing=(Lacing.OPEN,)),
    leaves=Leaves(lacing=Lacing.TIED),
    why="Untied, all runs back.",
)  # fmt: skip
_ALIGN = _step(
    "align", "Look from afar", "All ears down. Step back and look at it from several places: ropes upright, hoops level, badge and hardware in the middle.",
    Point("Shell sits to one side: ears up, shift it, watch the logo, ears down, look again"), Point("It is for the eye alone: the sound forgives it"),
    picture="align", does=("align-shell",), looks=(Where.ROPE, Where.SHELL),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="From near, a shell that sits askew is not seen.",
)  # fmt: skip


def _pull(name: str, title: str, again: bool) -> Step:
    say = (
        "A second pass where the range is low: ears down, and from the splice on as before, carried to the end."
        if again
        else "Ears down. From the first segment after the splice: loosen its ear, draw the rope through with a small even tug, hold it, go on to the next. At the end tie out, tug, tie."
    )
    return _step(
        name, title, say,
        Point("The same small pull everywhere; what was won before goes along, so each segment passes more than the one before it"),
        Point("The calculator says how far for the range that is wanted"),
        asks=(_pulled("pulled-again"), *_AGAIN) if again else (_PULL_READ, _pulled("pulled")),
        picture="pull", does=("pull-pass",), cautions=("rope", "over-tension", "two-people"), tools=("gloves", "rule"),
        needs=Needs(lacing=(Lacing.TIED,)),
        leaves=Leaves(head=HeadIs.TIGHT, other=HeadIs.TIGHT),
        why="Ears up all at once, the heads tip.",
    )  # fmt: skip


_RANGE = _step(
    "range", "Range", "Read it in the middle with every ear up, then with every ear down: that is its lowest and its highest. Note both.",
    Point("Aim slightly above what is wanted: film and rope both settle"),
    Point("Too low: another pass. Too high: let the same pull back, from the end to the splice"),
    Point("Soft beater, one stroke, the other head free"),
    asks=_AFTER, recalls=("wanted-low", "wanted-high"),
    picture="range", does=("range-check", "read"), cautions=("rope", "tapping"), tools=("soft mallet or stick",),
    needs=Needs(lacing=(Lacing.TIED,)),
    leaves=Leaves(head=HeadIs.TIGHT),
    why="Feel tells no pitch. Not aimed above, it sinks below what was wanted.",
)  # fmt: skip
_SEGMENTS = _step(
    "segments", "Segments", "Ears up. Squeeze each pair of ropes at the same height. One that stands out is corrected, and what is won is carried on to the end.",
    Point("The first pair after the splice is usually the tight one"),
    Point("To correct one, all ears down: hold its near side, loosen its ear, tug, then ear by ear to the end draw the won length through without adding"),
    Point("Left if it sounds: the drum forgives it"),
    Point("A pair slack or tight: carried on now", Found("rope-slack-pair")),
    asks=_FELT, picture="segments", does=("segment-map",), cautions=("rope",), tools=("gloves",),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="Tight ears hide a slack pair.",
)  # fmt: skip
_PIGTAIL = _step(
    "pigtail", "Pigtail", "Ears up. Pinch the rope, tie out, one last tug; twist it with the lay, three or four wraps behind the first kink, end in front and through.",
    Point("More than four wraps is only less pretty; some do the pigtail again, never the lacing"),
    picture="pigtail", does=("pigtail",), cautions=("rope",), cites=("§14", "F10"),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="The last strand is hardest to tighten; unlocked, the end falls out.",
)  # fmt: skip
_CHAIN = _step(
    "chain", "Chain", "Chain the spare rope into its drag rope and hang it where it does not touch a head.",
    does=("chain",),
    needs=Needs(lacing=(Lacing.TIED,)),
    why="The next lacing needs the spare.",
)  # fmt: skip


def _resting(minutes: int) -> Step:
    return Step(
        "rest", "Rest", Rest(minutes), "Let film and rope settle under it, ears down, while you do another drum. Then read the range once more.", None,
        does=("rest",), cites=("§14", "F6"),
        why="Film and rope both settle under load.",
    )  # fmt: skip


def _to_pitch(ways: Ways) -> tuple[Step, ...]:
    return (
        _pull("pull", "Pull pass", again=False), _RANGE, _pull("pull-again", "Second pass", again=True), _SEGMENTS, _PIGTAIL, _CHAIN,
        _resting(ways.rest_minutes), endings.mount(None),
    )  # fmt: skip


def _both(first: Side) -> tuple[Step, ...]:
    """Both heads in one unlacing: head and hoop back, all turned over, the other out (§14)."""
    return tuple(replace(step, id=f"{side.value}-{step.id}") for side in (first, first.other) for step in _head(side))


def _new(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    both = part is Part.HEADS
    side = Side.BATTER if both else Side(part.value)
    write = "both heads near their logos" if both else "the head near the logo"
    return (
        _LAY_OUT_NEW, _MARK, _EARS_OFF, _UNTIE, _unlace(side, both), *(_both(side) if both else _head(side)), _SLACK, _THREAD, _TIE, _ALIGN,
        *_to_pitch(ways), endings.close(None if both else side, f"Write month, year and the rope on {write}; note the range, then close the job."),
    )  # fmt: skip


def _range(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        _LAY_OUT, _MARK, _EARS_OFF, _UNTIE, _SLACK, _TIE, _ALIGN, *_to_pitch(ways),
        endings.close(None, "Note the range, then close the job.", "Close", writes=False),
    )  # fmt: skip


def _new_effects(part: Part) -> tuple[Effect, ...]:
    sides = part.sides
    return (
        *(each for side in sides for each in (effects.TakeFromShelf(side), effects.ChangeHead(side))),
        effects.CarryFindings(), effects.KeepAnswers(), effects.Log("done", "New rope-drum heads" if len(sides) > 1 else "New rope-drum head"),
        *(each for side in sides for each in (effects.AnswerChecks(side), effects.BookCheck(side))),
    )  # fmt: skip


def _range_effects(part: Part) -> tuple[Effect, ...]:
    each = tuple(effects.AnswerChecks(side) for side in part.sides)
    return (effects.CarryFindings(), effects.KeepAnswers(), effects.Log("done", "Rope brought to its range"), *each)


NEW_ROPE_HEAD = Procedure(
    id="new-rope-head",
    version=1,
    title="New {heads}, rope drum",
    parts=(Part.BATTER, Part.RESONANT, Part.HEADS),
    suits=rope,
    steps=_new,
    effects=_new_effects,
    cites=("§14", "F10", "F11"),
    changes_heads=True,
    minutes=120,
    rank=15,
    offer="New {heads}",
)
ROPE_RANGE = Procedure(
    id="rope-range",
    version=1,
    title="Bring the rope to its range",
    parts=(Part.HEADS, Part.BATTER, Part.RESONANT),
    suits=rope,
    steps=_range,
    effects=_range_effects,
    cites=("§14", "F10"),
    answers_checks=True,
    minutes=60,
    rank=73,
)
