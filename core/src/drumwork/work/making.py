"""The plan a procedure comes to on one drum in one workshop's ways: its words settled, and the drum held against every step (trade §20)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace

from drumwork.drums import Side
from drumwork.errors import UnknownWork
from drumwork.work.asks import Option, Question, places_round
from drumwork.work.conditions import ALWAYS, NEVER, Condition, Situation
from drumwork.work.hand import InHand, Lever, Up, as_it_came, done_already
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Head, Part, Plan, Procedure, Step, StepPlan
from drumwork.work.tools import every_tool, tools_for
from drumwork.work.units import Lengths
from drumwork.work.ways import Ways
from drumwork.work.words import Point, settle_points, settle_text, settle_those

__all__ = ["Lists", "came", "make_plan"]

Lists = Mapping[str, tuple[Option, ...]]
"""A workshop's own lists, by name, for questions that ask among them."""


def _by_name(ways: Ways) -> dict[str, str]:
    found = {}
    for each in fields(ways):
        value = getattr(ways, each.name)
        found[each.name] = "yes" if value is True else "no" if value is False else str(value)
    return found


def _asked(question: Question, side: Side | None, drum: DrumFacts, lists: Lists) -> Question:
    if question.round:
        return question.with_options(places_round(drum.layouts.get(question.side or side or Side.BATTER)))
    return question.with_options(lists.get(question.among, ())) if question.among else question


def _settle(
    step: Step, at: Situation, drum: DrumFacts, ways: Ways, fill: Mapping[str, object], lists: Lists
) -> StepPlan | None:
    when = step.when.settle(at)
    if when is NEVER:
        return None
    return StepPlan(
        id=step.id,
        title=settle_text(step.title, at, fill),
        say=settle_text(step.say, at, fill),
        data=step.data(drum, step.side, ways) if callable(step.data) else step.data,
        side=step.side,
        points=(points := settle_points(step.points, at, fill)),
        cautions=settle_those(step.cautions, at),
        when=when,
        does=settle_those(step.does, at),
        tools=(*(Point(each) for each in settle_those(step.tools, at)), *tools_for(when, points)),
        cites=step.cites,
        looks_at=step.looks_at,
        zero=step.zero,
        picture=step.picture,
        asks=tuple(_asked(each, step.side, drum, lists) for each in step.asks),
        recalls=step.recalls,
        why=settle_text(step.why, at, fill),
    )


def _lay_out_all(steps: list[StepPlan]) -> list[StepPlan]:
    """The steps, the one that lays out listing what any of them takes: what is missing is missed then, not with a bare drum in hand."""
    taken = every_tool((tool.text, step.when, tool.when) for step in steps for tool in step.tools)
    return [replace(step, tools=taken) if "lay-out" in step.does else step for step in steps]


_BELOW = "Worked from below, nothing is seen and the film carries the drum."


@dataclass(frozen=True, slots=True)
class _Move:
    """A turn of the drum or its lever, as it is said."""

    id: str
    title: str
    say: str
    why: str


_TURNS: Mapping[Up, _Move] = {
    Up.BATTER: _Move("to-batter", "Batter up", "Turn the drum over, batter head up.", _BELOW),
    Up.RESONANT: _Move("to-resonant", "Resonant up", "Turn the drum over, resonant head up.", _BELOW),
    Up.EDGE: _Move("on-edge", "On its edge", "Stand the drum on its edge, both heads free.", "Standing free, both heads sound."),
    Up.PLAYED: _Move("as-played", "As it is played", "Set the drum back as it is played, with what came off for the table.", "It goes back as a player expects it."),
}  # fmt: skip
_LAID: Mapping[Up, str] = {
    Up.BATTER: "Lay the drum down, batter head up.",
    Up.RESONANT: "Lay the drum down, resonant head up.",
}
"""How it is said of a drum that stands: there is nothing to turn over yet."""
_LEVERS: Mapping[Lever, _Move] = {
    Lever.ON: _Move("lever-on", "Lever on", "Lever on.", "Set with the lever off, the wires could never be switched off."),
    Lever.OFF: _Move("lever-off", "Lever off", "Lever off: the wires leave the head.", "Wires on the head rattle into every reading."),
}  # fmt: skip


@dataclass(slots=True)
class _Hands:
    """The drum as it goes from step to step, and the steps so far, turns and levers among them.

    What comes up only with a finding or an answer is an excursion: the drum is turned for it, and turned back after it, by steps that come up
    with it alone.
    """

    drum: DrumFacts
    procedure: Procedure
    at: InHand
    steps: list[StepPlan] = field(default_factory=list)
    main: InHand | None = None
    """The drum beside the excursion, while one is made."""
    when: Condition = ALWAYS

    def take(self, step: Step, made: StepPlan) -> None:
        """One more step, with what must be turned before it.

        Raises
        ------
        UnknownWork
            for a step whose needs nothing can meet.
        """
        if made.when != self.when:
            self._come_back()
            self.main, self.when = (None if made.when is ALWAYS else self.at), made.when
        if wrong := step.needs.unmet(self.at, step.side):
            if step.if_so and done_already(step.needs, step.leaves, self.at, step.side):
                return
            self._refuse(step, wrong)
        self._move(step.needs.way_up(self.at, step.side), step.needs.lever_to(self.at), step.side)
        self.steps.append(replace(made, before=self.at))
        lies = self.at.up if "lay-out" in made.does and self.at.up in (Up.BATTER, Up.RESONANT) else None
        self.at = step.leaves.after(self.at, step.side)
        if lies:  # on the table already: it is turned where a step needs it, and said
            self.at = replace(self.at, up=lies)

    def _refuse(self, step: Step, wrong: tuple[str, ...]) -> None:
        begun = self.steps[0].before if self.steps else self.at
        said = ", ".join(wrong)
        raise UnknownWork(
            f"“{self.procedure.title}” cannot be done as written: at “{step.id}” {said}."
            if begun == came(self.drum)
            else f"This work cannot be led to its end with the drum as it is: at “{step.title}” {said}. Put that right first, or choose work that does.",
            work=self.procedure.id,
            step=step.id,
        )

    def _come_back(self) -> None:
        if self.main is not None:
            up = self.main.up if self.main.up is not self.at.up else None
            lever = self.main.lever if self.main.lever is not self.at.lever else None
            self._move(up, lever, None)
            self.at, self.main = self.main, None

    def _move(self, up: Up | None, lever: Lever | None, side: Side | None) -> None:
        """The drum and its lever as they are wanted; where both move, that is one step."""
        moves = [*([_TURNS[up]] if up else []), *([_LEVERS[lever]] if lever else [])]
        if not moves:
            return
        first, stands = moves[0], self.at.up in (Up.PLAYED, Up.EDGE)
        said = (
            [_LAID[up] if up in _LAID and stands else first.say, *(each.say for each in moves[1:])]
            if up
            else [first.say]
        )
        begun = sum(each.id.startswith(first.id) for each in self.steps)
        lies = up in _LAID
        points = [
            *(["Nothing hard under the film that lies below"] if lies else []),
            *(
                ["Both hoops held by their rods before it is lifted"]
                if lies and self.at.reachable and self.drum.traits.rods
                else []
            ),
        ]
        self.steps.append(
            StepPlan(
                f"{first.id}-{1 + begun}" if begun else first.id,
                first.title,
                " ".join(said),
                Tick(),
                side,
                points=tuple(Point(each) for each in points),
                cautions=("two-people",) if up and self.drum.traits.two_people else (),
                when=self.when,
                does=("turn",) if up else ("lever",),
                why=first.why,
                before=self.at,
            )
        )
        self.at = replace(self.at, up=up or self.at.up, lever=lever or self.at.lever)


def came(drum: DrumFacts) -> InHand:
    """This drum as a player left it."""
    return as_it_came(drum.has_wires, drum.traits.wires, drum.port, not drum.traits.rods)


def make_plan(
    procedure: Procedure,
    part: Part,
    drum: DrumFacts,
    ways: Ways,
    heads: Mapping[Side, Head] | None = None,
    lists: Lists | None = None,
    above_cents: Mapping[Side, float] | None = None,
    begun: InHand | None = None,
) -> Plan:
    """The plan of a job; of a drum that is not as a player leaves it, with how it is when the job begins (`begun`).

    Raises
    ------
    UnknownWork
        where the work does not suit this drum or this part of it, or the drum as it is now, with the reason.
    """
    if why := procedure.why_not(drum, part):
        raise UnknownWork(why, work=procedure.id, kind=drum.kind.value, part=part.value)
    known, named = dict(heads or {}), _by_name(ways)
    hands = _Hands(drum, procedure, begun or came(drum))
    for step in procedure.steps(part, ways, drum):
        at = Situation(drum.kind, step.side, drum.layouts, named, drum.has_wires, drum.snare_bed, drum.port)
        side = step.side.value if step.side else part.value
        head = known.get(step.side, Head()) if step.side else Head()
        fill: dict[str, object] = {
            "side": side,
            "Side": side.capitalize(),
            "new_head": head.new or "looked over",
            "old_head": head.old,
            "tap": drum.traits.tap.format(mm=Lengths(ways.lengths)),
            "minutes": str(ways.rest_minutes),
            "mm": Lengths(ways.lengths),
        }
        if made := _settle(step, at, drum, ways, fill, lists or {}):
            hands.take(step, made)
    steps = _lay_out_all(hands.steps)
    return Plan(
        procedure.id, procedure.version, procedure.titled(part), part, drum, ways, tuple(steps), procedure.effects(part),
        procedure.changes_heads, known, dict(lists or {}), dict(above_cents or {}),
    )  # fmt: skip
