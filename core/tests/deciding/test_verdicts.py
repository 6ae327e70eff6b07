"""What findings come to. Every figure and answer of the trade in here is common practice, no source; the answers are those of the notes' §11 and vocabulary."""

from __future__ import annotations

import functools
import itertools
from collections.abc import Iterable

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.deciding import RULES, Decision, Drum, HeadSeen, Part, Seen, Verdict, decide
from drumwork.deciding.decide import PARTS
from drumwork.deciding.rules import Known
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import BadFinding
from drumwork.findings import FINDINGS, Where, findings_for
from drumwork.work.conditions import Found

SNARE, RACK, FLOOR = DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM


def drum(
    kind: DrumKind = RACK,
    batter: Iterable[Seen] = (),
    resonant: Iterable[Seen] = (),
    wires: Iterable[Seen] | None = None,
    hardware: Iterable[Seen] = (),
    out: bool = False,
    months: tuple[float, float] = (3, 3),
) -> Drum:
    heads = {
        Side.BATTER: HeadSeen(months=months[0], seen=tuple(batter)),
        Side.RESONANT: HeadSeen(months=months[1], seen=tuple(resonant)),
    }
    return Drum(kind, 8, heads, None if wires is None else tuple(wires), tuple(hardware), out)


def all_of(found: Drum) -> dict[str, Verdict]:
    return dict(decide(found, changes=False).verdicts)


@st.composite
def findings(draw: st.DrawFn, kind: DrumKind) -> dict[str, list[Seen]]:
    """Anything that can be found on such a drum, anywhere, however bad."""
    parts: dict[str, list[Seen]] = {"batter": [], "resonant": [], "wires": [], "hardware": []}
    for row in draw(st.lists(st.sampled_from(findings_for(kind)), max_size=6)):
        seen = Seen(
            row.id, draw(st.sampled_from((1, 2, 3))), near=draw(st.sampled_from(("", "at the edge", "beside the bed")))
        )
        at = {Where.HEAD: ("batter", "resonant"), Where.WIRES: ("wires",)}.get(row.where, ("hardware",))
        parts[draw(st.sampled_from(at))].append(seen)
    return parts


def made(kind: DrumKind, parts: dict[str, list[Seen]], out: bool, months: tuple[float, float]) -> Drum:
    wires = parts["wires"] if traits_of(kind).wires else None
    return drum(kind, parts["batter"], parts["resonant"], wires, parts["hardware"], out, months)


@given(st.data(), st.sampled_from(DrumKind), st.booleans(), st.tuples(st.integers(0, 60), st.integers(0, 60)))
def test_worse_findings_never_give_a_milder_verdict(
    data: st.DataObject, kind: DrumKind, out: bool, months: tuple[int, int]
) -> None:
    """One more finding, one degree worse, older, or going out: no part's verdict gets milder."""
    parts = data.draw(findings(kind))
    before = all_of(made(kind, parts, out, months))
    more = data.draw(findings(kind))
    worse = {
        part: [
            Seen(each.finding, min(3, each.degree + data.draw(st.sampled_from((0, 1)))), near=each.near)
            for each in seen
        ]
        + more[part]
        for part, seen in parts.items()
    }
    after = all_of(
        made(kind, worse, out or data.draw(st.booleans()), (months[0] + data.draw(st.integers(0, 30)), months[1]))
    )
    for part, verdict in before.items():
        assert after[part].severity >= verdict.severity, part


@given(st.data(), st.sampled_from(DrumKind))
def test_the_drum_is_as_bad_as_its_worst_part_and_every_verdict_has_its_rule(
    data: st.DataObject, kind: DrumKind
) -> None:
    found = decide(made(kind, data.draw(findings(kind)), data.draw(st.booleans()), (40, 40)))
    worst = max((found.verdicts[part] for part in PARTS), key=lambda each: each.severity)
    assert found.verdicts["drum"] is worst
    for part in PARTS:
        if found.verdicts[part] is not Verdict.NOTHING:
            assert any(each.part == part and each.verdict is found.verdicts[part] for each in found.because)
    for each in found.would_change:
        assert each.verdict is not found.verdicts[each.part]


def evidence() -> Iterable[Drum]:
    """Every finding alone in every place and degree, going out or not; near the bed and the edge on two kinds of drum; and every two findings
    on the heads and wires together."""
    for kind in DrumKind:
        nears = ("", "bed", "edge") if kind in (SNARE, DrumKind.BASS) else ("",)
        for row, degree, out in itertools.product(findings_for(kind), (1, 2, 3), (False, True)):
            for near in nears:
                seen = Seen(row.id, degree, near=near)
                if row.where is Where.HEAD or row.where is Where.ANY:
                    yield drum(kind, batter=[seen], out=out)
                    yield drum(kind, resonant=[seen], out=out)
                if row.where is Where.WIRES or (row.where is Where.ANY and traits_of(kind).wires):
                    yield drum(kind, wires=[seen], out=out)
                if row.where not in (Where.HEAD, Where.WIRES):
                    yield drum(kind, hardware=[seen], out=out)
                    yield drum(kind, hardware=[seen, seen], out=out)
    for one, two, degree in itertools.product(
        ("dull", "pitch-lost", "stretched", "dents"), ("dents", "creases", "coat-worn", "stretched"), (2, 3)
    ):
        pair = [Seen(one, degree), Seen(two, degree)]
        yield drum(SNARE, batter=pair)
        yield drum(SNARE, batter=[pair[0]], resonant=[pair[1]], out=True)
        yield drum(RACK, batter=pair, months=(20, 50))
    yield drum(SNARE, months=(20, 50))
    yield Drum(
        SNARE,
        10,
        {
            Side.RESONANT: HeadSeen("two-ply coated"),
            Side.BATTER: HeadSeen(turned_again=4, months=20, fell_cents=80, kind_falls_cents=20),
        },
    )
    yield Drum(SNARE, 10, {Side.BATTER: HeadSeen(fell_cents=80, kind_falls_cents=20)})


@functools.cache
def decided() -> list[tuple[Drum, Decision]]:
    return [(found, decide(found, changes=False)) for found in evidence()]


def test_every_rule_is_reached() -> None:
    reached = {each.rule for _, decision in decided() for each in decision.because}
    said = {each for each in RULES if each not in reached}
    # A rule may be told only together with a stronger one about the same thing; then it must at least have fired.
    from drumwork.deciding.decide import _fired

    fired = {rule.id for found, _ in decided() for part in PARTS for rule in _fired(found, part)}
    assert set(RULES) <= fired, sorted(set(RULES) - fired)
    assert said == set()


def test_no_two_rules_contradict() -> None:
    """Of rules about one finding, what asks for a worse degree comes to no milder verdict, and no two answer the same evidence differently."""
    for part, row in itertools.product(Part, FINDINGS):
        alone = [
            rule
            for rule in RULES.values()
            if rule.part is part and {leaf.finding for leaf in rule.when.leaves() if isinstance(leaf, Found)} == {row}
        ]
        by_degree = [(leaf.degree, rule) for rule in alone for leaf in rule.when.leaves() if isinstance(leaf, Found)]
        for (lower, mild), (higher, strong) in itertools.permutations(by_degree, 2):
            same_when = {leaf.words() for leaf in mild.when.leaves() if not isinstance(leaf, Found)} <= {
                leaf.words() for leaf in strong.when.leaves() if not isinstance(leaf, Found)
            }
            if higher > lower and same_when:
                assert strong.verdict.severity >= mild.verdict.severity, (mild.id, strong.id)
    for found, decision in decided():
        for part in PARTS:
            told = [each for each in decision.because if each.part == part]
            if len(found.heads[Side.BATTER].seen if Side.BATTER in found.heads else ()) + len(
                found.hardware
            ) == 1 and part in ("batter", "hardware"):
                assert len({each.verdict for each in told}) <= 1, [each.rule for each in told]


def test_every_finding_comes_to_something_and_every_rule_says_why() -> None:
    asked = {
        leaf.finding.removeprefix("other:").removeprefix("wires:").partition("@")[0]
        for rule in RULES.values()
        for leaf in rule.when.leaves()
        if isinstance(leaf, Found)
    }
    assert asked == set(FINDINGS)
    for rule in RULES.values():
        assert rule.words.endswith("."), rule.id
        assert rule.cites, rule.id
        assert rule.urgency, rule.id
        assert rule.when.words(), rule.id
        for cite in rule.cites:
            assert not cite.startswith("F:") or cite[2:] in FINDINGS, cite
        assert all(not isinstance(leaf, Known) or leaf.name for leaf in rule.when.leaves())


@pytest.mark.parametrize(
    ("side", "seen", "out", "verdict"),
    [
        ("batter", Seen("dents", 1), False, "nothing"),
        ("batter", Seen("dents", 3), False, "replace-next"),
        ("batter", Seen("dents", 3), True, "replace-next"),  # a cratered batter with a good resonant is playable
        ("resonant", Seen("dents", 2), False, "replace-next"),  # on a resonant head sooner
        ("resonant", Seen("dents", 3), True, "replace-now"),
        ("batter", Seen("split"), False, "replace-now"),
        ("batter", Seen("tear-at-hoop", 1), False, "replace-now"),
        ("batter", Seen("coat-worn", 2), False, "replace-next"),
        ("batter", Seen("coat-worn", 2, near="near the edge"), False, "nothing"),  # plain in the playing area
        ("batter", Seen("defaced", 2), True, "replace-now"),  # replace for the stage
        ("batter", Seen("pitch-lost", 1), False, "clear-recheck"),  # recheck the rods once
        ("batter", Seen("pitch-lost", 3), False, "replace-next"),  # then replace
        ("batter", Seen("age"), False, "replace-next"),  # as Today has it: change the head
        ("batter", Seen("wrong-head"), False, "replace-next"),  # at the next bench day
    ],
)  # fmt: skip
def test_usual_answers_on_heads(side: str, seen: Seen, out: bool, verdict: str) -> None:
    assert all_of(drum(**{side: [seen]}, out=out))[side] == verdict


@pytest.mark.parametrize(
    ("part", "seen", "out", "verdict"),
    [
        ("wires", Seen("strand-broken", 1), False, "replace-next"),
        ("wires", Seen("strap-stretched", 1), False, "repair"),  # renew
        ("wires", Seen("wires-stay-on"), False, "repair"),  # knob back, clamp again
        ("wires", Seen("wires-slow", 2), False, "clear-recheck"),  # snare-side head and bed rods first
        ("hardware", Seen("shell-split", 1), False, "out-of-service"),
        ("hardware", Seen("ply-lifting", 1), False, "out-of-service"),
        ("hardware", Seen("rod-missing"), False, "repair"),
        ("hardware", Seen("rod-missing", near="beside the bed"), True, "replace-now"),  # §13: must be complete
        ("hardware", Seen("thread-stripped"), False, "repair"),
        ("hardware", Seen("edge-chipped"), False, "repair"),
    ],
)  # fmt: skip
def test_usual_answers_elsewhere(part: str, seen: Seen, out: bool, verdict: str) -> None:
    found = all_of(
        drum(SNARE, wires=[seen] if part == "wires" else [], hardware=[seen] if part == "hardware" else [], out=out)
    )
    assert found[part] == verdict
    assert found["drum"] == verdict


def test_creases_beside_the_snare_bed_alarm_nobody() -> None:
    """N9: they are expected on the snare-side head; anywhere else creases are the end of a film."""
    beside = Seen("creases", 3, near="beside the snare bed")
    assert all_of(drum(SNARE, resonant=[beside]))["resonant"] == "nothing"
    assert all_of(drum(SNARE, batter=[beside]))["batter"] == "replace-next"
    assert all_of(drum(RACK, resonant=[beside]))["resonant"] == "replace-next"


class TestWhichHead:
    """N6: the batter is tightened again and again although the resonant head, which nobody looks at, is the culprit."""

    @pytest.mark.parametrize(
        ("batter", "resonant", "wires", "first"),
        [
            ([Seen("dull", 2)], [Seen("dents", 3)], None, "resonant"),
            ([Seen("pitch-lost", 2)], [Seen("dents", 2)], None, "resonant"),
            ([Seen("dull", 2)], [], None, "resonant"),  # the other head first
            ([Seen("pitch-lost", 2)], [], None, "batter"),
            ([Seen("dull", 2), Seen("creases", 2)], [], None, "batter"),
            ([Seen("dull", 2), Seen("coat-worn", 3)], [Seen("dents", 2)], None, "resonant"),  # alike: §7, the resonant first
            ([], [], [Seen("wires-slow", 2)], "resonant"),
            ([], [Seen("split")], None, "resonant"),
            ([Seen("split")], [], None, "batter"),
            ([Seen("dents", 1)], [], None, None),
            ([], [], None, None),
        ],
    )  # fmt: skip
    def test_first(self, batter: list[Seen], resonant: list[Seen], wires: list[Seen] | None, first: str | None) -> None:
        assert decide(drum(SNARE, batter, resonant, wires)).suspect_first == first

    def test_an_old_resonant_head_is_suspected_before_a_new_batter_that_will_not_hold(self) -> None:
        assert decide(drum(RACK, [Seen("pitch-lost", 2)], months=(2, 60))).suspect_first is Side.RESONANT

    def test_one_nobody_looked_at_is_suspected(self) -> None:
        alone = Drum(RACK, 6, {Side.BATTER: HeadSeen(seen=(Seen("pitch-lost", 2),))})
        assert decide(alone).suspect_first is Side.RESONANT
        again = Drum(RACK, 6, {Side.BATTER: HeadSeen(turned_again=4), Side.RESONANT: HeadSeen()})
        assert decide(again).suspect_first is Side.RESONANT

    def test_turn_it_over_for_tonight(self) -> None:
        """§11: a cratered resonant with a better batter, on a tom that goes out."""
        craters = [Seen("dents", 3)]
        assert decide(drum(RACK, resonant=craters, out=True)).turn_over
        assert decide(drum(FLOOR, [Seen("dents", 1)], craters, out=True)).turn_over
        for other in (
            drum(RACK, resonant=craters),  # at home it gets a head
            drum(RACK, craters, craters, out=True),  # no better
            drum(RACK, [Seen("split")], craters, out=True),
            drum(RACK, resonant=[*craters, Seen("split")], out=True),  # nobody plays on a split
            drum(SNARE, resonant=craters, out=True),  # no stick on a snare-side film
            drum(DrumKind.BASS, resonant=craters, out=True),
            drum(RACK, resonant=[Seen("dents", 2)], out=True),
        ):
            assert not decide(other).turn_over


def test_what_would_change_it_is_said() -> None:
    said = {(each.part, each.if_words): each.verdict for each in decide(drum(RACK, [Seen("dents", 2)])).would_change}
    assert said["batter", "“dents” worse"] is Verdict.REPLACE_NEXT
    assert said["batter", "without “dents”"] is Verdict.NOTHING


def test_what_a_drum_cannot_have_is_refused_in_words() -> None:
    with pytest.raises(BadFinding, match="has no such part"):
        drum(RACK, wires=[Seen("wires-slow")])
    with pytest.raises(BadFinding, match="1 slight, 2 plain or 3 bad"):
        drum(RACK, [Seen("dents", 4)])  # type: ignore[arg-type]
