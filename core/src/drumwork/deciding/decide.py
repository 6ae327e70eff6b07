"""From evidence to verdicts, with what they rest on, what would change them, and which of two heads to suspect first (N6)."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from typing import Final

from drumwork.deciding.evidence import Drum, HeadSeen, Seen
from drumwork.deciding.rules import RULES, Known, Part, Rule
from drumwork.deciding.suspects import Suspicion, suspect_first, turns_over
from drumwork.deciding.verdicts import Verdict, worst
from drumwork.drums import DrumKind, Side
from drumwork.work.conditions import Condition, Found, FoundThing, Situation

__all__ = ["PARTS", "Because", "Change", "Decision", "decide"]

PARTS: Final = ("batter", "resonant", "wires", "hardware")


@dataclass(frozen=True, slots=True)
class Because:
    """One reason: the part it is about, the rule, its words and its sources."""

    part: str
    rule: str
    words: str
    cites: tuple[str, ...]
    verdict: Verdict | None = None


@dataclass(frozen=True, slots=True)
class Change:
    """What would change a verdict, and to what."""

    part: str
    if_words: str
    verdict: Verdict


@dataclass(frozen=True, slots=True)
class Decision:
    """`verdicts` has the four parts and `drum`; `because` the rules that carried them, the deciding ones first."""

    verdicts: Mapping[str, Verdict]
    suspect_first: Side | None
    turn_over: bool
    because: tuple[Because, ...]
    would_change: tuple[Change, ...] = ()


@cache
def _settled(kind: DrumKind, part: str) -> tuple[tuple[Rule, Condition], ...]:
    """The rules of a part, decided for this kind of drum and this head as far as they can be without findings."""
    about = Part.HEAD if part in ("batter", "resonant") else Part(part)
    side = Side(part) if about is Part.HEAD else None
    at = Situation(kind, side, {}, {})
    at = replace(at, wires=at.traits.wires)
    return tuple((rule, rule.when.settle(at)) for rule in RULES.values() if rule.part is about)


def _facts(drum: Drum, part: str) -> Sequence[FoundThing]:
    if part == "wires":
        return drum.about_wires()
    return drum.about_hardware() if part == "hardware" else drum.about_head(Side(part))


def _fired(drum: Drum, part: str) -> list[Rule]:
    facts = _facts(drum, part)
    return [rule for rule, when in _settled(drum.kind, part) if when.holds(facts)]


def _verdicts(drum: Drum) -> tuple[dict[str, Verdict], dict[str, list[Rule]]]:
    fired = {part: _fired(drum, part) for part in PARTS}
    verdicts = {part: worst(rule.verdict for rule in rules) for part, rules in fired.items()}
    return verdicts | {"drum": worst(verdicts.values())}, fired


def _rests_on(rule: Rule, facts: Sequence[FoundThing]) -> set[str]:
    """Which of the facts a rule speaks of, apart from whether the drum goes out."""
    leaves = [leaf for leaf in rule.when.leaves() if isinstance(leaf, Found | Known) and leaf.holds(facts)]
    names = {leaf.finding if isinstance(leaf, Found) else leaf.name for leaf in leaves}
    return {name.partition("@")[0] for name in names} - {"going-out"}


def _telling(rules: Iterable[Rule], facts: Sequence[FoundThing]) -> Iterator[Rule]:
    """The rules worth saying, the strongest first: none whose evidence was spoken of already."""
    told: set[str] = set()
    for rule in sorted(rules, key=lambda each: -each.verdict.severity):
        if not (rests := _rests_on(rule, facts)) <= told:
            told |= rests
            yield rule


def _reasons(
    drum: Drum, verdicts: Mapping[str, Verdict], fired: Mapping[str, Iterable[Rule]], suspicions: Iterable[Suspicion]
) -> Iterator[Because]:
    """Of each part the rules that carry its verdict, then what else there is to say; the worst part first."""
    for part in sorted(fired, key=lambda each: -verdicts[each].severity):
        for rule in _telling(fired[part], _facts(drum, part)):
            yield Because(part, rule.id, rule.words, rule.cites, rule.verdict)
    for each in suspicions:
        yield Because("drum", each.id, each.words, each.cites)


def _otherwise(drum: Drum) -> Iterator[tuple[str, Drum]]:
    """The drum with one thing otherwise: a finding gone or a degree worse, going out or staying."""
    yield ("it stays here" if drum.going_out else "it goes out"), replace(drum, going_out=not drum.going_out)
    places: list[tuple[str, tuple[Seen, ...]]] = [(side.value, head.seen) for side, head in drum.heads.items()]
    places += [("wires", drum.wires or ()), ("hardware", drum.hardware)]
    for part, seen in places:
        for number, each in enumerate(seen):
            rest = (*seen[:number], *seen[number + 1 :])
            yield f"without “{each.row.words}”", _with(drum, part, rest)
            if each.row.degrees and each.degree < 3:
                yield f"“{each.row.words}” worse", _with(drum, part, (*rest, replace(each, degree=each.degree + 1)))


def _with(drum: Drum, part: str, seen: tuple[Seen, ...]) -> Drum:
    if part == "wires":
        return replace(drum, wires=seen)
    if part == "hardware":
        return replace(drum, hardware=seen)
    head = drum.heads.get(Side(part), HeadSeen())
    return replace(drum, heads={**drum.heads, Side(part): replace(head, seen=seen)})


def _changes(drum: Drum, now: Mapping[str, Verdict]) -> Iterator[Change]:
    for words, other in _otherwise(drum):
        then, _ = _verdicts(other)
        yield from (Change(part, words, then[part]) for part in PARTS if then[part] is not now[part])


def decide(drum: Drum, changes: bool = True) -> Decision:
    """What this drum needs.

    `changes` also works out what would change each verdict, by asking again with one thing otherwise at a time.
    """
    verdicts, fired = _verdicts(drum)
    suspect, suspicions = suspect_first(drum, fired)
    over = turns_over(drum, fired)
    suspicions += [over] if over else []
    because = tuple(_reasons(drum, verdicts, fired, suspicions)) or (
        Because("drum", "nothing-found", "Nothing was found.", ("§11",), Verdict.NOTHING),
    )
    return Decision(verdicts, suspect, over is not None, because, tuple(_changes(drum, verdicts)) if changes else ())
