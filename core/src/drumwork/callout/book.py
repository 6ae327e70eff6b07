"""The book of a call-out: for every drum of a kit every step that may be asked for, so that a phone without network can plan."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from drumwork.callout.cures import CURES, STAND_TICKS, Cure, head_named, ticks_of
from drumwork.callout.lending import Donor, Gap, gap_at, who_lends
from drumwork.callout.steps import OWN_SNARE, Book, BookDrum, Given, Phase, Step, Weights, tick_key
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.kits.roles import Role
from drumwork.membrane import Head
from drumwork.quantities import Pitch, Turns
from drumwork.rods.layout import RodLayout

__all__ = ["DrumThere", "HeadThere", "bag_part", "make_book"]

USUAL: Final = Weights()
_ROLE: Final[Mapping[Role, float]] = {Role.SNARE: 1.2, Role.BASS: 1.1, Role.BESIDE: 0.6}
"""How much a drum is heard; 1 where nothing is said. Our own figures, no source."""
_SHARE: Final = {"suffers": 1.0, "notices": 0.65, "hardly notices": 0.3}
_DONOR_MISSES: Final = {"suffers": 0.7, "notices": 0.35, "hardly notices": 0.1}
_DONORS: Final = 2
"""So many drums are offered for each gap; the plan chooses among them."""
_BED: Final = 1.3
_HEAD_OF = ("split", "tear-at-hoop", "dents", "creases", "coat-worn", "stretched", "pitch-lost", "dull")
_OFF = ("pitch-lost", "dull")
_PLAYED_THROUGH = ("split", "tear-at-hoop")


@dataclass(frozen=True, slots=True)
class HeadThere:
    """One head as it stands: its rods, and where they are known its film, pitch and answer."""

    layout: RodLayout
    head: Head | None = None
    lug: Pitch | None = None
    turns_per_cent: float = 0.001


@dataclass(frozen=True, slots=True)
class DrumThere:
    """One drum of the kit; `size` as bag parts for it are called, `known` ticks that stand on its record."""

    tag: str
    name: str
    kind: DrumKind
    role: Role
    size: str
    heads: Mapping[Side, HeadThere]
    thread: str = ""
    hoops: str = ""
    known: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class _Making:
    """One drum while its steps are made."""

    drum: DrumThere
    weights: Weights
    names: Mapping[str, str]
    donors: Sequence[Donor]

    def worth(self, weight: str, share: float) -> float:
        usual = _ROLE.get(self.drum.role, 1.0)
        return round(float(getattr(self.weights, weight)) * usual * share, 2)

    def key(self, finding: str, side: Side | None = None, rod: int | None = None) -> str:
        return tick_key(self.drum.tag, finding, side.value if side else "", rod)

    def id(self, *what: object) -> str:
        return " ".join([self.drum.tag or "stands", *(str(each) for each in what)])

    @property
    def kind(self) -> DrumKind:
        return self.drum.kind


def bag_part(part: str, drum: DrumThere) -> str:
    """How a part for this drum is called in the bag: rods by their thread, heads by their size."""
    if part == "tension rod" and drum.thread:
        return f"tension rod {drum.thread}"
    return part


def _of_head(side: Side) -> Phase:
    return Phase.RESONANT if side is Side.RESONANT else Phase.BATTER


def _cured(of: _Making, finding: str, cures: Sequence[Cure], key: str, words: str) -> Iterator[Step]:
    one = (f"one:{key}",) if len(cures) > 1 else ()
    for number, cure in enumerate(cures):
        yield Step(
            id=of.id(finding, *([words] if words else []), number),
            drum=of.drum.tag,
            title=cure.title,
            beside=words,
            did=f"{cure.did}{f' ({words})' if words else ''}",
            why=cure.why,
            minutes=cure.minutes,
            worth=of.worth(cure.weight, cure.share),
            phase=cure.phase,
            when=(key,),
            uses=(*one, *(bag_part(part, of.drum) for part in cure.parts)),
            mends=(key,),
            stop_gap=cure.stop_gap,
            caution=cure.caution,
        )


def _plain(of: _Making) -> Iterator[Step]:
    """What the table of cures answers, at every place it may be found."""
    for tick in ticks_of(of.kind):
        cures = CURES.get(tick.finding)
        if not cures:
            continue
        side = Side(tick.side) if tick.side else None
        if not tick.rod:
            yield from _cured(of, tick.finding, cures, of.key(tick.finding, side), "")
        elif side is not None and side in of.drum.heads:
            for rod in of.drum.heads[side].layout.rods:
                words = f"{head_named(of.kind, side)}, rod {rod}"
                yield from _cured(of, tick.finding, cures, of.key(tick.finding, side, rod), words)


def _gap(of: _Making, side: Side, rod: int) -> Gap | None:
    there = of.drum.heads[side]
    if there.head is None or there.lug is None or there.layout.count < 4:
        return None
    return gap_at(there.head, there.layout, rod, there.lug, of.drum.hoops, there.turns_per_cent)


def _misses(gap: Gap | None, rods: int) -> float:
    """How much a head misses a rod, 0 to 1: by its film and pitch; where they are unknown, the more the fewer rods it has."""
    if gap is None:
        return min(1.0, 4.5 / rods)
    return min(1.0, _SHARE[gap.words] + 0.05 * gap.lost)


def _gap_words(of: _Making, gap: Gap | None, side: Side, rods: int) -> str:
    named = f"the {head_named(of.kind, side)}"
    if gap is None:
        return f"With {rods} rods {named} misses it."
    if gap.words == "suffers":
        return f"The gap takes {round(100 * gap.lost)} % of the pull there, and {named} has little to lose."
    return f"The gap takes {round(100 * gap.lost)} % of the pull there; {named} {gap.words} it."


def _rod_missing(of: _Making, side: Side, rod: int) -> Iterator[Step]:
    layout, gap = of.drum.heads[side].layout, _gap(of, side, rod)
    bed = rod in layout.beside_bed
    misses = 1.0 if bed else _misses(gap, layout.count)
    weighs = misses * (_BED if bed else 1.0)
    key, named = of.key("rod-missing", side, rod), head_named(of.kind, side)
    why = "Rods beside the snare bed have to be complete." if bed else _gap_words(of, gap, side, layout.count)
    phase = Phase.DRUMS if side is Side.RESONANT else Phase.BATTER
    base = Step(
        id="", drum=of.drum.tag, title="", beside="", did="", why=why, minutes=0, worth=0, phase=phase, when=(key,), mends=(key,),
        uses=(f"one:{key}",),
    )  # fmt: skip
    yield replace(
        base, id=of.id("rod", side.value, rod, "bag"), title=f"Rod {rod} from the bag", beside=named,
        did=f"rod {rod} of the {named} replaced", minutes=1.5, worth=of.worth("rods", weighs),
        uses=(*base.uses, bag_part("tension rod", of.drum)),
    )  # fmt: skip
    yield from _lent(of, base, side, rod, weighs)
    before, after = layout.nth_on(rod, -1), layout.nth_on(rod, 1)
    extra = gap.extra if gap else Turns.of(1, 8)
    yield replace(
        base, id=of.id("rod", side.value, rod, "neighbours"), title=f"Rods {before} and {after} {extra.words()}",
        beside=f"{named}, both sides of the gap", did=f"rods beside the gap at {rod} of the {named} drawn up",
        why=f"{why} Its neighbours make up a little.", minutes=1, worth=of.worth("rods", 0.35 * weighs), stop_gap=True,
    )  # fmt: skip


def _lent(of: _Making, base: Step, side: Side, rod: int, weighs: float) -> Iterator[Step]:
    """Who may give this rod; a snare that rests tonight, as another is brought, is a donor of its own."""
    claws = traits_of(of.kind).claws
    near = [each for each in of.donors if each.id != of.drum.tag]
    offers, _ = who_lends([each for each in near if traits_of(each.kind).claws == claws], of.drum.thread)
    shown = [each for each in offers if each.donor in of.names][:_DONORS]
    for offer in shown:
        rests = not offer.plays_tonight
        layout = next(each.layout for each in near if each.id == offer.donor)
        one, other = layout.nth_on(offer.gap.rod, -1), layout.nth_on(offer.gap.rod, 1)
        then = "" if rests else f" Then {one} and {other} there {offer.gap.extra.words()}."
        step = replace(
            base,
            id=of.id("rod", side.value, rod, "from", offer.donor),
            title=f"Lend rod {rod}",
            beside=f"from {of.names[offer.donor]}’s batter, {offer.gap.rod}",
            did=f"rod {rod} of the {head_named(of.kind, side)} lent by {of.names[offer.donor]} (its rod {offer.gap.rod})",
            why=f"{base.why} {of.names[offer.donor]}: {offer.why}.{then}",
            minutes=2,
            unless=(f"short:{offer.donor}",),
            uses=(*base.uses, f"giver:{offer.donor}"),
            stop_gap=True,
            gives=Given(
                offer.donor,
                of.names[offer.donor],
                layout.count,
                offer.gap.rod,
                of.drum.tag,
                side,
                of.drum.heads[side].layout.count,
                rod,
            ),
        )
        misses = 0.0 if rests else _DONOR_MISSES[offer.gap.words]
        share = 0.95 * weighs - misses
        own = f"bag:{OWN_SNARE}"
        may_rest = not rests and traits_of(next(each.kind for each in near if each.id == offer.donor)).wires
        if share > 0.1:
            unless = (*step.unless, own) if may_rest else step.unless
            yield replace(step, worth=of.worth("rods", share), unless=unless)
        if may_rest:
            why = f"{base.why} {of.names[offer.donor]} rests tonight, as your own snare plays."
            yield replace(step, worth=of.worth("rods", 0.95 * weighs), why=why, when=(*step.when, own))


def _new_head(of: _Making, side: Side) -> Iterator[Step]:
    named, every = head_named(of.kind, side), tuple(of.key(each, side) for each in _HEAD_OF)
    for finding in _PLAYED_THROUGH:
        why = (
            "What is torn does not come back."
            if finding == "split"
            else "It pulls out of its hoop: it will not last the evening."
        )
        yield Step(
            id=of.id("new-head", side.value), drum=of.drum.tag, title=f"New {named}", beside=f"{of.drum.size} from the bag",
            did=f"a new {named} fitted", why=why, minutes=8, worth=of.worth("plays", 1.0 if side is Side.BATTER else 0.6),
            phase=_of_head(side), when=(of.key(finding, side),), uses=(f"head {of.drum.size}",), mends=every,
        )  # fmt: skip


def _cleared(of: _Making, side: Side) -> Iterator[Step]:
    """Bring a head even: the bottom one before the batter, on a bass drum after the pillow."""
    traits, named = traits_of(of.kind), head_named(of.kind, side)
    keys = tuple(of.key(each, side) for each in _OFF)
    after = [of.id("pillow")] if traits.pedal else []
    if side is Side.BATTER:
        after.append(of.id("even", Side.RESONANT.value))
    torn = tuple(of.key(each, side) for each in _PLAYED_THROUGH)
    for key in keys:
        if traits.pedal:
            yield Step(
                id=of.id("pillow"), drum=of.drum.tag, title="Move the pillow first", beside="off both heads, then listen",
                did="the pillow moved", why="More often than not it is the pillow and no head.", minutes=1, worth=of.worth("sounds", 0.4),
                phase=Phase.FIRST, when=(key,), unless=torn,
            )  # fmt: skip
        yield Step(
            id=of.id("even", side.value), drum=of.drum.tag, title=f"{named[0].upper()}{named[1:]} even", beside="only the rods that sound off",
            did=f"the {named} brought even",
            why="A bottom head that is off cannot be tuned away on top." if side is Side.RESONANT else "Tap round, and touch only what is off.",
            minutes=2 if traits.pedal or side is Side.BATTER else 2.5, worth=of.worth("sounds", 1.0), phase=_of_head(side), when=(key,),
            unless=torn, after=tuple(after), mends=keys,
        )  # fmt: skip


def _turned_over(of: _Making) -> Iterator[Step]:
    """For tonight, where the bottom is cratered and the batter is not: toms only, as wires and pedals stay where they are."""
    traits = traits_of(of.kind)
    if traits.wires or traits.pedal or not traits.film or not traits.rods or Side.RESONANT not in of.drum.heads:
        return
    spoiled = tuple(of.key(each, Side.BATTER) for each in ("dents", "split", "tear-at-hoop"))
    torn = tuple(of.key(each, Side.RESONANT) for each in _PLAYED_THROUGH)
    key = of.key("dents", Side.RESONANT)
    yield Step(
        id=of.id("turn-over"), drum=of.drum.tag, title="Turn it over for tonight", beside="the good batter goes below",
        did="turned over for the evening", why="Craters below kill the note; on top they can be played.",
        minutes=4 if traits.legs else 3, worth=of.worth("sounds", 0.9), phase=Phase.DRUMS, when=(key,), unless=(*spoiled, *torn), mends=(key,),
        stop_gap=True,
    )  # fmt: skip


def _steps(of: _Making) -> Iterator[Step]:
    yield from _plain(of)
    for side, there in of.drum.heads.items():
        if traits_of(of.kind).rods:
            for rod in there.layout.rods:
                yield from _rod_missing(of, side, rod)
        if traits_of(of.kind).film:
            yield from _new_head(of, side)
            yield from _cleared(of, side)
    yield from _turned_over(of)


def _left_alone(step: Step, kind: DrumKind) -> Step:
    """With a snare of one’s own the kit’s is left as it is."""
    return replace(step, unless=(*step.unless, f"bag:{OWN_SNARE}")) if traits_of(kind).wires else step


def _stands() -> tuple[BookDrum, DrumThere]:
    there = DrumThere("", "Stands and cymbals", DrumKind.PRACTICE_MESH, Role.TOM, "", {})
    return BookDrum("", there.name, None, None, 0, 0, (), STAND_TICKS), there


def make_book(
    drums: Sequence[DrumThere], donors: Sequence[Donor], names: Mapping[str, str], weights: Weights = USUAL
) -> Book:
    """Everything a call-out to these drums may need.

    Parameters
    ----------
    donors : batters that may give a rod, drums of the kit and others at the place; names : of drums and donors, by tag
    weights : the workshop's own
    """
    book, steps = list[BookDrum](), list[Step]()
    for drum in drums:
        making = _Making(drum, weights, names, donors)
        steps += [_left_alone(each, drum.kind) for each in _steps(making)]
        rods = {side: there.layout.count for side, there in drum.heads.items()}
        bed = drum.heads[Side.RESONANT].layout.beside_bed if Side.RESONANT in drum.heads else frozenset[int]()
        ticks = ticks_of(drum.kind)
        book.append(
            BookDrum(
                drum.tag, drum.name, drum.kind, drum.role, rods.get(Side.BATTER, 0), rods.get(Side.RESONANT, 0), tuple(sorted(bed)), ticks, drum.size, drum.thread, drum.note
            )
        )  # fmt: skip
    stands, there = _stands()
    making = _Making(there, weights, names, donors)
    for tick in STAND_TICKS:
        steps += _cured(making, tick.finding, CURES[tick.finding], making.key(tick.finding), "")
    _, refused = who_lends(list(donors))
    why = tuple(f"{names.get(each.donor, each.donor)}: {each.why}" for each in refused)
    return Book((*book, stands), _known(drums), tuple(steps), why)


def _known(drums: Iterable[DrumThere]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(key for drum in drums for key in drum.known))
