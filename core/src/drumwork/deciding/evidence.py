"""What is known of a drum when it is decided about: what was seen, how old, how it held, whether it goes out."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

from drumwork.condition import is_past_life
from drumwork.drums import DrumKind, Side, Traits, traits_of
from drumwork.errors import BadFinding
from drumwork.findings import FINDINGS, FindingKind, Place, Where, finding, findings_for

__all__ = ["Drum", "HeadSeen", "Lives", "Seen", "WORN_BY_USE"]

WORN_BY_USE = ("coat-worn", "dents", "creases", "stretched", "dull", "pitch-lost")
"""Findings that come with use and say, on an old head, that its time has come."""
_AT_THE_EDGE = ("edge", "rim", "hoop", "outer", "border")
_LONGEST_PLACE = 200


@dataclass(frozen=True, slots=True)
class Lives:
    """How long this workshop keeps heads: months, and by hours of playing where it counts them; and from when it calls a record bad.

    `falls_times`: how many times as far as its kind a head must fall; `turned_visits`: at how many visits in a row the same rods must have been
    turned.
    """

    batter_months: float = 12
    resonant_months: float = 30
    hours: float | None = None
    falls_times: float = 2.0
    turned_visits: int = 3

    def months(self, side: Side) -> float:
        return self.batter_months if side is Side.BATTER else self.resonant_months


@dataclass(frozen=True, slots=True)
class Seen:
    """One finding as it was seen: its row, how bad (1 to 3), where. `near` is the place in the words it was told in."""

    finding: str
    degree: int = 2
    place: Place = field(default_factory=Place)
    near: str = ""

    @property
    def row(self) -> FindingKind:
        return finding(self.finding)

    @property
    def words(self) -> str:
        at = self.near or self.place.words()
        how = ("slight ", "", "bad ")[self.degree - 1] if self.row.degrees else ""
        return f"{how}{self.row.words}{f' ({at})' if at else ''}"


@dataclass(frozen=True, slots=True)
class HeadSeen:
    """One head: what it is, its age, what was seen on it, and what its record says.

    Attributes
    ----------
    kind : as the workshop calls it, free words
    months, hours : how old, how long played; None where nobody knows
    fell_cents, kind_falls_cents : how far it fell since it was last cleared, and what its kind usually does in that time
    turned_again : of how many visits in a row the same rods needed turning
    """

    kind: str = ""
    months: float | None = None
    hours: float | None = None
    fell_cents: float | None = None
    kind_falls_cents: float | None = None
    turned_again: int = 0
    seen: tuple[Seen, ...] = ()


@dataclass(frozen=True, slots=True)
class _Fact:
    """A finding or a fact as conditions ask for it."""

    finding: str
    degree: int = 3
    place: Place = field(default_factory=Place)


def _words_of(text: str) -> str:
    return " ".join("".join(each if each.isalnum() else " " for each in text.casefold()).split())


@dataclass(frozen=True)
class Drum:
    """All of it. `wires` is None where the drum has none, or nobody looked."""

    kind: DrumKind
    rods: int = 8
    heads: Mapping[Side, HeadSeen] = field(default_factory=dict)
    wires: tuple[Seen, ...] | None = None
    hardware: tuple[Seen, ...] = ()
    going_out: bool = False
    lives: Lives = field(default_factory=Lives)

    def __post_init__(self) -> None:
        possible = findings_for(self.kind)
        for each in self.everything():
            if each.row not in possible:
                raise BadFinding(f"A {self.traits.words} has no such part: {each.row.words}.", finding=each.finding)
            if each.degree not in (1, 2, 3):
                raise BadFinding("A finding is 1 slight, 2 plain or 3 bad.", finding=each.finding, degree=each.degree)
            if each.place.rod is not None and not 1 <= each.place.rod <= max(self.rods, 16):
                raise BadFinding(f"There is no rod {each.place.rod} on this drum.", rod=each.place.rod)
            if len(each.near) > _LONGEST_PLACE:
                raise BadFinding(f"A place is said in up to {_LONGEST_PLACE} characters.", finding=each.finding)

    @property
    def traits(self) -> Traits:
        return traits_of(self.kind)

    def everything(self) -> Iterator[Seen]:
        for head in self.heads.values():
            yield from head.seen
        yield from self.wires or ()
        yield from self.hardware

    def _known(self, *names: str) -> list[_Fact]:
        return [_Fact(f"known:{name}") for name in (*names, *(("going-out",) if self.going_out else ()))]

    def _on_a_head(self, side: Side, each: Seen) -> _Fact:
        near = set(_words_of(each.near).split())
        if each.finding == "creases" and self.traits.wires and side is Side.RESONANT and near & {"bed", "beds"}:
            return _Fact("creases@bed", each.degree)
        if each.finding == "coat-worn" and near & set(_AT_THE_EDGE):
            return _Fact("coat-worn@edge", each.degree)
        return _Fact(each.finding, each.degree, each.place)

    def about_head(self, side: Side) -> list[_Fact]:
        """What conditions ask of one head: its findings, its record, the other head's findings as `other:…`, the wires' as `wires:…`."""
        head, other = self.heads.get(side, HeadSeen()), self.heads.get(side.other, HeadSeen())
        facts = [self._on_a_head(side, each) for each in head.seen]
        facts += [_Fact(f"other:{each.finding}", each.degree) for each in other.seen]
        facts += [_Fact(f"wires:{each.finding}", each.degree) for each in self.wires or ()]
        return facts + self._known(*self._record(side, head))

    def _record(self, side: Side, head: HeadSeen) -> Iterator[str]:
        if head.months is not None and is_past_life(head.months, self.lives.months(side)):
            yield "past-life"
        if head.hours is not None and self.lives.hours is not None and head.hours > self.lives.hours:
            yield "past-hours"
        if (
            head.fell_cents is not None
            and head.kind_falls_cents is not None
            and head.fell_cents > self.lives.falls_times * max(head.kind_falls_cents, 5)
        ):
            yield "falls-fast"
        if head.turned_again >= self.lives.turned_visits:
            yield "turned-again"
        if self._wrong_kind(side, _words_of(head.kind)):
            yield "wrong-kind"

    def _wrong_kind(self, side: Side, kind: str) -> bool:
        snare_side = "snare side" in kind
        if side is Side.BATTER or not self.traits.wires:
            return snare_side and self.traits.film
        thick = any(each in kind for each in ("two ply", "double ply", "2 ply", "coated", "mesh")) or kind == "batter"
        return thick and not snare_side

    def about_wires(self) -> list[_Fact]:
        return [_Fact(each.finding, each.degree) for each in self.wires or ()] + self._known()

    def about_hardware(self) -> list[_Fact]:
        facts = []
        for each in self.hardware:
            facts.append(_Fact(each.finding, each.degree, each.place))
            if each.finding == "rod-missing" and "bed" in _words_of(each.near).split():
                facts.append(_Fact("rod-missing@bed"))
        missing = sum(each.finding == "rod-missing" for each in self.hardware)
        return facts + self._known(*(["rods-missing"] if missing > 1 else []))


def routed(said: Iterable[tuple[Side | None, Seen]], section: str) -> dict[str, list[Seen]]:
    """Findings to the part they belong to, wherever they were told: a rod's finding told with a head is the hardware's.

    Raises
    ------
    BadFinding
        for a head's finding told without saying which head.
    """
    parts: dict[str, list[Seen]] = {}
    for side, each in said:
        where = FINDINGS[each.finding].where
        at = side or (Side(each.place.side) if each.place.side else None)
        if where is Where.HEAD or (where is Where.ANY and section == "head"):
            if at is None:
                raise BadFinding(f"Say on which head: {each.row.words}.", finding=each.finding)
            parts.setdefault(at.value, []).append(each)
        elif where is Where.WIRES:
            parts.setdefault("wires", []).append(each)
        else:
            parts.setdefault("hardware", []).append(each)
    return parts
