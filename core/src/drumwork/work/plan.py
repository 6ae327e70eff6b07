"""Procedures as values, and the plan a procedure comes to on one drum in one workshop's ways.

A plan is made once, when the job starts, and kept with it: words, passes, cautions. Its conditions are settled but for findings, so that
the same stored plan says what is to be done whatever is found on the way.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

from drumwork.drums import DrumKind, Side, Traits, traits_of
from drumwork.errors import BadEvent
from drumwork.findings import Where
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import order_rods
from drumwork.rope import Pass
from drumwork.work.asks import Option, Question
from drumwork.work.cautions import CautionId
from drumwork.work.conditions import ALWAYS, Condition, FoundThing
from drumwork.work.effects import Effect
from drumwork.work.hand import ANYHOW, AS_BEFORE, InHand, Leaves, Needs
from drumwork.work.kinds.steps import Passes, StepData, StepKind
from drumwork.work.pictures import Picture
from drumwork.work.tags import Tag
from drumwork.work.ways import Ways
from drumwork.work.words import If, Point, Text

__all__ = ["DrumFacts", "Head", "Part", "Plan", "Procedure", "Step", "StepPlan", "passes_of"]


class Part(StrEnum):
    """What a job is about. Two open jobs about the same part of one drum exclude each other."""

    BATTER = "batter"
    RESONANT = "resonant"
    HEADS = "heads"
    WIRES = "wires"
    HARDWARE = "hardware"
    DRUM = "drum"

    @property
    def sides(self) -> tuple[Side, ...]:
        """The heads such a job works on."""
        match self:
            case Part.BATTER | Part.RESONANT:
                return (Side(self.value),)
            case Part.HEADS | Part.DRUM:
                return (Side.BATTER, Side.RESONANT)
            case _:
                return ()


@dataclass(frozen=True, slots=True)
class DrumFacts:
    """The drum as a plan needs it. Rope drums have no layouts; wires lie on every snare, unless it is said otherwise.
    `rope_passes` are what earlier jobs learned of its rope."""

    kind: DrumKind
    layouts: Mapping[Side, RodLayout]
    snare_bed: bool = False
    port: bool = False
    thread: str = ""
    wires: bool | None = None
    rope_passes: tuple[Pass, ...] = ()
    diameter_m: float | None = None
    depth_m: float | None = None

    @property
    def has_wires(self) -> bool:
        return self.traits.wires if self.wires is None else self.wires

    @property
    def traits(self) -> Traits:
        return traits_of(self.kind)


@dataclass(frozen=True, slots=True)
class Head:
    """What goes on and what comes off one side; empty where not known, or where nothing is changed."""

    new: str = ""
    old: str = ""


StepMaker = Callable[["DrumFacts", Side | None, Ways], StepData]


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a procedure, before a drum is known.

    Parameters
    ----------
    data : what the step holds, or how it is made from drum, side and ways
    side : the head it is about
    when : whether it comes up at all
    says : a short title, and one instruction to read aloud
    tools : tools and materials this step takes; the first step lists those of all
    zero : from the end of this step turns of this side are counted
    looks_at : parts whose findings are offered first here
    picture : what it is shown with, where words are not enough
    asks : what is to be answered here
    recalls : questions whose answers are said again here
    needs, leaves : of the drum in hand, before and after it (trade §20)
    why : what goes wrong without it (trade §19)
    """

    id: str
    title: Text
    data: StepData | StepMaker
    say: Text
    side: Side | None = None
    points: tuple[Point, ...] = ()
    cautions: tuple[CautionId | If[CautionId], ...] = ()
    when: Condition = ALWAYS
    does: tuple[Tag | If[Tag], ...] = ()
    tools: tuple[str | If[str], ...] = ()
    cites: tuple[str, ...] = ()
    looks_at: tuple[Where, ...] = ()
    zero: bool = False
    picture: Picture = ""
    asks: tuple[Question, ...] = ()
    recalls: tuple[str, ...] = ()
    needs: Needs = ANYHOW
    leaves: Leaves = AS_BEFORE
    why: Text = ""
    if_so: bool = False
    """Left out, rather than an error, where the drum is further on already: rods that are loose, a head that is off, wires that are free."""


@dataclass(frozen=True, slots=True)
class StepPlan:
    """One step of a job's plan. Texts are final; `when` and the points' conditions speak of findings only."""

    id: str
    title: str
    say: str
    data: StepData
    side: Side | None = None
    points: tuple[Point, ...] = ()
    cautions: tuple[CautionId, ...] = ()
    when: Condition = ALWAYS
    does: tuple[Tag, ...] = ()
    tools: tuple[Point, ...] = ()
    cites: tuple[str, ...] = ()
    looks_at: tuple[Where, ...] = ()
    zero: bool = False
    picture: Picture = ""
    asks: tuple[Question, ...] = ()
    recalls: tuple[str, ...] = ()
    why: str = ""
    before: InHand | None = None
    """The drum as this step finds it; None in plans made before a plan knew."""

    @property
    def kind(self) -> StepKind:
        return self.data.kind

    def _near(self, found: Iterable[FoundThing]) -> tuple[FoundThing, ...]:
        """What was found on the head this step is about, or on no head in particular."""
        return tuple(each for each in found if self.side is None or each.place.side in ("", self.side.value))

    def shows(self, found: Iterable[FoundThing]) -> bool:
        """Whether the step comes up with what was found so far."""
        return self.when is ALWAYS or self.when.holds(self._near(found))

    def said(self, found: Iterable[FoundThing]) -> tuple[str, ...]:
        """The points to look at with what was found so far."""
        return self._holding(self.points, found)

    def takes(self, found: Iterable[FoundThing]) -> tuple[str, ...]:
        """The tools and materials it takes with what was found so far."""
        return self._holding(self.tools, found)

    def _holding(self, points: tuple[Point, ...], found: Iterable[FoundThing]) -> tuple[str, ...]:
        things = self._near(found)
        return tuple(str(point.text) for point in points if point.when.holds(things))


def _never(drum: DrumFacts, part: Part) -> str:
    return ""


@dataclass(frozen=True, slots=True)
class Procedure:
    """A piece of work, as a value.

    Parameters
    ----------
    part : what a job of it is about; None where it is chosen for each job among `parts`
    suits : why it is not for such a drum; empty where it is
    refuses : why it is not for this part of such a drum; empty where it is
    steps : by part, ways and drum, since the order of two heads is a school and differs by drum
    changes_heads : a new head goes on each of its sides
    mesh : what goes on is mesh: no film, no pitch, and nothing that settles as film does
    answers_checks : it is what a check that is due asks for
    offer : what a button that starts it says; without it the title
    rank : its place in the catalogue, lower first
    """

    id: str
    version: int
    title: str
    parts: tuple[Part, ...]
    suits: Callable[[DrumFacts], str]
    steps: Callable[[Part, Ways, DrumFacts], tuple[Step, ...]]
    effects: Callable[[Part], tuple[Effect, ...]]
    cites: tuple[str, ...] = ()
    changes_heads: bool = False
    mesh: bool = False
    answers_checks: bool = False
    minutes: int = 30
    offer: str = ""
    rank: int = 50
    refuses: Callable[[DrumFacts, Part], str] = _never

    def titled(self, part: Part) -> str:
        """Its title on this part of a drum."""
        return self._told(self.title, part)

    def offered(self, part: Part) -> str:
        """What a button that starts it says."""
        return self._told(self.offer or self.title, part)

    @staticmethod
    def _told(words: str, part: Part) -> str:
        return words.format(part=part.value, heads="heads" if part is Part.HEADS else f"{part.value} head")

    def why_not(self, drum: DrumFacts, part: Part) -> str:
        """Why this work cannot be done on this part of this drum; empty where it can."""
        if part not in self.parts:
            return f"“{self.title}” is not work on the {part.value}."
        return self.suits(drum) or self.refuses(drum, part)


@dataclass(frozen=True)
class Plan:
    """The steps of one job, as it began. `findings_for` decides which of them show."""

    work: str
    version: int
    title: str
    part: Part
    drum: DrumFacts
    ways: Ways
    steps: tuple[StepPlan, ...]
    effects: tuple[Effect, ...] = ()
    changes_heads: bool = False
    heads: Mapping[Side, Head] = field(default_factory=dict)
    lists: Mapping[str, tuple[Option, ...]] = field(default_factory=dict)
    above_cents: Mapping[Side, float] = field(default_factory=dict)
    """How far a new head is left above its wanted pitch, so that it settles to it."""

    @cached_property
    def _by_id(self) -> Mapping[str, StepPlan]:
        return {step.id: step for step in self.steps}

    @property
    def sides(self) -> tuple[Side, ...]:
        return self.part.sides

    def step(self, step_id: str) -> StepPlan:
        """The step of this id, whether it shows or not; BadEvent where the plan has none."""
        if step_id not in self._by_id:
            raise BadEvent(f"This job has no step “{step_id}”.", step=step_id)
        return self._by_id[step_id]

    def side_of(self, step_id: str) -> Side:
        """The head a step is about; BadEvent for a step about none."""
        side = self.step(step_id).side
        if side is None:
            raise BadEvent(f"“{self.step(step_id).title}” is about no one head.", step=step_id)
        return side

    def layout(self, side: Side) -> RodLayout:
        """The head's rods as the job began; BadEvent on a drum that has none."""
        if side not in self.drum.layouts:
            raise BadEvent("This drum has no rods.", side=side.value)
        return self.drum.layouts[side]

    def turning_order(self, side: Side) -> tuple[int, ...]:
        return order_rods(self.layout(side), self.ways.pattern)

    def tapping_order(self, side: Side) -> tuple[int, ...]:
        """Straight round, where the next place is plain to see; or as the rods are turned, where the workshop wants that."""
        return self.layout(side).rods if self.ways.tap_round else self.turning_order(side)


def passes_of(step: StepPlan) -> Passes:
    """What a step of passes holds; BadEvent for any other step."""
    if not isinstance(step.data, Passes):
        raise BadEvent("Passes can be added to slackening and tensioning only.", step=step.id)
    return step.data
