"""When a step, a point or a sentence holds: readable values over drum, side, ways and what was found.

>>> when = IsKind(DrumKind.SNARE) & Way("stretch", "palm") | Found("edge-chipped", 2)
>>> when.words()
'(snare and stretch palm) or edge chipped (plain or worse)'

A plan is made by *settling* its conditions against drum and ways: what is left speaks of findings only, is kept with the job, and is asked
again whenever something is found.
"""

from __future__ import annotations

import re
from abc import ABC, abstractmethod
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Protocol

from drumwork.drums import DrumKind, Side, Traits, traits_of
from drumwork.errors import BadEvent
from drumwork.findings import FINDINGS, Place
from drumwork.rods.layout import RodLayout

__all__ = [
    "ALWAYS", "NEVER", "All", "Any_", "Chose", "Chosen", "Condition", "Found", "FoundThing", "Has", "IsKind", "Not", "OnSide", "Situation", "Way", "condition_from", "condition_to",
]  # fmt: skip


class FoundThing(Protocol):
    """What a condition asks of a finding that stands."""

    @property
    def finding(self) -> str: ...
    @property
    def degree(self) -> int: ...
    @property
    def place(self) -> Place: ...


@dataclass(frozen=True, slots=True)
class Situation:
    """What conditions are settled against: the kind of drum, the head a step is about, and the workshop's ways by name."""

    kind: DrumKind
    side: Side | None
    layouts: Mapping[Side, RodLayout]
    ways: Mapping[str, str]
    wires: bool = False
    bed: bool = False
    port: bool = False

    @property
    def traits(self) -> Traits:
        return traits_of(self.kind)


class Condition(ABC):
    """Base of all. Joined with `&`, `|` and `~`."""

    def __and__(self, other: Condition) -> Condition:
        return All((self, other))

    def __or__(self, other: Condition) -> Condition:
        return Any_((self, other))

    def __invert__(self) -> Condition:
        return Not(self)

    @abstractmethod
    def settle(self, at: Situation) -> Condition:
        """The same with everything about drum and ways decided: ALWAYS, NEVER, or what is left about findings."""

    @abstractmethod
    def holds(self, found: Iterable[FoundThing]) -> bool:
        """For a settled condition: whether it holds with what was found so far."""

    @abstractmethod
    def words(self) -> str:
        """How the catalogue says it."""

    def leaves(self) -> tuple[Condition, ...]:
        """The plain conditions this one is made of."""
        return (self,)


@dataclass(frozen=True, slots=True)
class _Plain(Condition):
    value: bool

    def settle(self, at: Situation) -> Condition:
        return self

    def holds(self, found: Iterable[FoundThing]) -> bool:
        return self.value

    def words(self) -> str:
        return "always" if self.value else "never"


ALWAYS: Condition = _Plain(True)
NEVER: Condition = _Plain(False)


def _plain(value: bool) -> Condition:
    return ALWAYS if value else NEVER


class _AboutDrum(Condition):
    """Decided when a plan is made."""

    __slots__ = ()

    @abstractmethod
    def here(self, at: Situation) -> bool:
        """Whether it holds of this drum and these ways."""

    def settle(self, at: Situation) -> Condition:
        return _plain(self.here(at))

    def holds(self, found: Iterable[FoundThing]) -> bool:
        raise BadEvent("This condition was not settled against a drum.", condition=self.words())


@dataclass(frozen=True)
class IsKind(_AboutDrum):
    """The drum is of one of these kinds."""

    kinds: tuple[DrumKind, ...]

    def __init__(self, *kinds: DrumKind) -> None:
        object.__setattr__(self, "kinds", kinds)

    def here(self, at: Situation) -> bool:
        return at.kind in self.kinds

    def words(self) -> str:
        return " or ".join(traits_of(kind).words for kind in self.kinds)


@dataclass(frozen=True)
class Has(_AboutDrum):
    """The drum has this trait, by its name in the table; `wires`, `bed`, `port` and `bed_on_record` ask of this one drum."""

    trait: str

    def here(self, at: Situation) -> bool:
        known = any(layout.beside_bed for layout in at.layouts.values())
        own = {"wires": at.wires, "bed": at.bed, "port": at.port, "bed_on_record": known}
        return own[self.trait] if self.trait in own else bool(getattr(at.traits, self.trait))

    def words(self) -> str:
        return f"has {self.trait.replace('_', ' ')}"


@dataclass(frozen=True)
class OnSide(_AboutDrum):
    """The step is about this head."""

    side: Side

    def here(self, at: Situation) -> bool:
        return at.side is self.side

    def words(self) -> str:
        return f"on the {self.side.value} head"


@dataclass(frozen=True)
class Way(_AboutDrum):
    """This workshop, or this job, does it so (trade §17)."""

    name: str
    value: str

    def here(self, at: Situation) -> bool:
        return at.ways[self.name] == self.value

    def words(self) -> str:
        return f"{self.name.replace('_', ' ')} {self.value}"


_ELSEWHERE = {"other": " on the other head", "wires": " (the wires)"}


@dataclass(frozen=True)
class Found(Condition):
    """This was found, at least so bad, and stands (a finding put right still counts: its step was done for it)."""

    finding: str
    degree: int = 1

    def settle(self, at: Situation) -> Condition:
        return self

    def holds(self, found: Iterable[FoundThing]) -> bool:
        return any(each.finding == self.finding and each.degree >= self.degree for each in found)

    def words(self) -> str:
        of, _, name = self.finding.rpartition(":")
        what, _, where = name.partition("@")
        said = re.split(r"[;(]", FINDINGS[what].words)[0].strip() if what in FINDINGS else what.replace("-", " ")
        at = (f" at the {where}" if where else "") + _ELSEWHERE.get(of, "")
        return said + at + ("", "", " (plain or worse)", " (bad)")[self.degree]


@dataclass(frozen=True, slots=True)
class Chosen:
    """An answer given on this job, as conditions ask for it: a fact like what was found, told apart by its name."""

    question: str
    value: str

    @property
    def finding(self) -> str:
        return f"{self.question}={self.value}"

    @property
    def degree(self) -> int:
        return 3

    @property
    def place(self) -> Place:
        return Place()


@dataclass(frozen=True)
class Chose(Condition):
    """This was the answer to a question of the job."""

    question: str
    value: str

    def settle(self, at: Situation) -> Condition:
        return self

    def holds(self, found: Iterable[FoundThing]) -> bool:
        asked = Chosen(self.question, self.value).finding
        return any(each.finding == asked for each in found)

    def words(self) -> str:
        return f"{self.question} {self.value} chosen"


def _apart(part: Condition, *joined: str) -> str:
    """The words of a part, in brackets where its own joining words could be read with those around it."""
    words = part.words()
    return f"({words})" if any(each in words for each in joined) else words


@dataclass(frozen=True)
class All(Condition):
    of: tuple[Condition, ...]

    def settle(self, at: Situation) -> Condition:
        left = [each for each in (each.settle(at) for each in self.of) if each is not ALWAYS]
        if any(each is NEVER for each in left):
            return NEVER
        return ALWAYS if not left else left[0] if len(left) == 1 else All(tuple(left))

    def holds(self, found: Iterable[FoundThing]) -> bool:
        things = tuple(found)
        return all(each.holds(things) for each in self.of)

    def words(self) -> str:
        return " and ".join(_apart(each, " or ") for each in self.of)

    def leaves(self) -> tuple[Condition, ...]:
        return tuple(leaf for each in self.of for leaf in each.leaves())


@dataclass(frozen=True)
class Any_(Condition):  # noqa: N801  `Any` is taken by typing
    of: tuple[Condition, ...]

    def settle(self, at: Situation) -> Condition:
        left = [each for each in (each.settle(at) for each in self.of) if each is not NEVER]
        if any(each is ALWAYS for each in left):
            return ALWAYS
        return NEVER if not left else left[0] if len(left) == 1 else Any_(tuple(left))

    def holds(self, found: Iterable[FoundThing]) -> bool:
        things = tuple(found)
        return any(each.holds(things) for each in self.of)

    def words(self) -> str:
        return " or ".join(_apart(each, " and ") for each in self.of)

    def leaves(self) -> tuple[Condition, ...]:
        return tuple(leaf for each in self.of for leaf in each.leaves())


@dataclass(frozen=True)
class Not(Condition):
    of: Condition

    def settle(self, at: Situation) -> Condition:
        left = self.of.settle(at)
        return NEVER if left is ALWAYS else ALWAYS if left is NEVER else Not(left)

    def holds(self, found: Iterable[FoundThing]) -> bool:
        return not self.of.holds(found)

    def words(self) -> str:
        return f"not {_apart(self.of, ' or ', ' and ')}"

    def leaves(self) -> tuple[Condition, ...]:
        return self.of.leaves()


def condition_to(when: Condition) -> Any:
    """A settled condition as plain data, for storage and for devices: true, false, or findings joined by all, any, not."""
    match when:
        case _Plain():
            return when.value
        case Found():
            return {"found": when.finding, "degree": when.degree}
        case Chose():
            return {"found": Chosen(when.question, when.value).finding, "degree": 1}
        case All():
            return {"all": [condition_to(each) for each in when.of]}
        case Any_():
            return {"any": [condition_to(each) for each in when.of]}
        case Not():
            return {"not": condition_to(when.of)}
        case _:
            raise BadEvent("Only settled conditions are kept.", condition=when.words())


def condition_from(stored: Any) -> Condition:
    """A condition as it was kept."""
    match stored:
        case bool():
            return _plain(stored)
        case {"found": str(known), "degree": int(degree)}:
            question, chosen, value = known.partition("=")
            return Chose(question, value) if chosen else Found(known, degree)
        case {"all": list(of)}:
            return All(tuple(condition_from(each) for each in of))
        case {"any": list(of)}:
            return Any_(tuple(condition_from(each) for each in of))
        case {"not": of}:
            return Not(condition_from(of))
        case _:
            raise BadEvent("A stored condition cannot be read.", condition=repr(stored))
