"""Every kind of entry: its slot, its rule between two devices, and what it changes."""

from dataclasses import fields

import pytest
from benches import START, after, log, plan, read, readings, turned

from drumwork.drums import DrumKind, Side
from drumwork.errors import BadEvent, BadFinding, BadLayout, DrumworkError
from drumwork.quantities import Turns
from drumwork.rods.clearing import Ear, Means
from drumwork.work.fold import fold, require_fits, standing_of, where
from drumwork.work.kinds.clear import CentreRead, LeftUneven, MeansChosen, TargetChosen, WholeJudged
from drumwork.work.kinds.common import Settled, StepDone, Undone
from drumwork.work.kinds.finding import FindingMade, PutRight
from drumwork.work.kinds.passes import CadenceChosen, PassAdded, RodTurn, Turned
from drumwork.work.kinds.registry import ENTRIES, ENTRY_KINDS
from drumwork.work.log import Entry, Logged, Standing
from drumwork.work.plan import Part
from drumwork.work.ways import Cadence

BOTH = plan("both-heads", Part.HEADS)


def test_every_kind_is_defined_once_and_explains_itself() -> None:
    assert len(ENTRY_KINDS) == len(ENTRIES)
    for entry in ENTRIES:
        assert entry.__doc__
        assert all(each.name != "kind" for each in fields(entry))


@pytest.mark.parametrize(
    ("one", "other", "standing"),
    [
        (CentreRead("clear", 0, "114").read(440), CentreRead("clear", 0, "118").read(440), Standing.CONFLICT),
        (CentreRead("clear", 0, "114").read(440), CentreRead("clear", 0, "114").read(440), Standing.REPEAT),
        (WholeJudged("clear", 0, Ear.LOWER), WholeJudged("clear", 0, Ear.HIGHER), Standing.CONFLICT),
        (MeansChosen(Means.EAR), MeansChosen(Means.GAUGE), Standing.CONFLICT),
        (TargetChosen("200").read(440), TargetChosen("210").read(440), Standing.CONFLICT),
        (StepDone("lay-out"), StepDone("lay-out"), Standing.REPEAT),
        (turned("slacken", 0, 1, Turns(-64)), turned("slacken", 0, 1, Turns(-64)), Standing.CONFLICT),
        (turned("slacken", 0, 1, None), turned("slacken", 0, 1, None), Standing.REPEAT),
        (turned("slacken", 0, 1, Turns(-64)), turned("slacken", 0, 2, Turns(-64)), Standing.APPLIED),
        (PassAdded("slacken", -64), PassAdded("slacken", -32), Standing.CONFLICT),
        (FindingMade("mark", "dents", Side.BATTER), FindingMade("mark", "dents", Side.BATTER), Standing.REPEAT),
    ],
)
def test_two_devices_writing_about_one_thing(one: Entry, other: Entry, standing: Standing) -> None:
    state = fold(plan(), log(one))
    assert standing_of(state, other, 0, "phone")[0] is standing
    assert standing_of(state, other, 1, "phone")[0] is Standing.APPLIED  # it had seen the first
    assert standing_of(state, other, 0, "tablet")[0] is Standing.APPLIED  # the same pair of hands


def test_a_pass_confirmed_at_once_conflicts_with_one_of_its_rods_turned_by_another() -> None:
    state = fold(plan(), log(turned("slacken", 0, 4, Turns(-64))))
    whole = Turned("slacken", 0, tuple(RodTurn(rod, -64) for rod in range(1, 7)))
    assert standing_of(state, whole, 0, "phone") == (Standing.CONFLICT, "e1")


def test_a_conflict_counts_only_once_it_is_decided_for() -> None:
    first, second = turned("slacken", 0, 1, Turns(-64)), turned("slacken", 0, 1, Turns(-32))
    rows = [
        *log(first),
        Logged("e2", 2, "Bram", START, second, "phone", Standing.CONFLICT, "e1"),
    ]
    assert fold(plan(), rows).laps["slacken"][0].turned[1].value == Turns(-64)
    decided = [*rows, Logged("e3", 3, "Ines", START, Settled("e2", "second"))]
    assert fold(plan(), decided).laps["slacken"][0].turned[1].value == Turns(-32)


class TestFindings:
    """Something found on the way changes what is to be done at once."""

    def test_adds_its_step_and_takes_it_back_with_undo(self) -> None:
        chipped = FindingMade("clean", "edge-chipped", Side.BATTER, degree=2)
        assert "edge-decide" in [step.id for step in after(plan(), chipped).steps]
        assert "edge-decide" not in [step.id for step in after(plan(), chipped, Undone("e1")).steps]
        slight = FindingMade("clean", "edge-chipped", Side.BATTER, degree=1)
        assert "edge-decide" not in [step.id for step in after(plan(), slight).steps]

    def test_a_step_done_for_it_stays_done(self) -> None:
        chipped = FindingMade("clean", "edge-chipped", Side.BATTER)
        state = after(plan(), chipped, StepDone("edge-decide"), Undone("e1"))
        assert "edge-decide" in [step.id for step in state.steps]

    def test_a_lost_rod_is_gone_from_every_pass_still_to_be_made(self) -> None:
        made = [turned("slacken", 0, rod, Turns(-64)) for rod in (1, 4)]
        lost = FindingMade("slacken", "rod-missing", Side.BATTER, 5)
        state = after(plan(), *made, lost)
        assert list(state.laps["slacken"][0].owed()) == [2, 3, 6]
        assert state.laps["tension"][0].rods == (1, 4, 2, 3, 6)
        assert state.tapping_order(Side.BATTER) == (1, 2, 3, 4, 6)
        back = after(plan(), *made, lost, PutRight("e3"))
        assert 5 in back.laps["tension"][0].owed()

    def test_a_round_without_the_lost_rod_can_be_cleared(self) -> None:
        from drumwork.work.clearing import clearing_task

        lost = FindingMade("clear", "rod-missing", Side.BATTER, 6)
        state = after(plan("settling-check"), *readings(0, 200, 201, 202, 200, 201, 202), lost)
        task = clearing_task(state, "clear", 0)
        assert task.layout.rods == (1, 2, 3, 4, 5)
        assert set(task.rounds[0].readings) == {1, 2, 3, 4, 5}

    def test_is_about_one_head_only(self) -> None:
        state = after(BOTH, FindingMade("mark", "edge-chipped", Side.RESONANT))
        ids = [step.id for step in state.steps]
        assert "resonant-edge-decide" in ids
        assert "batter-edge-decide" not in ids

    @pytest.mark.parametrize(
        ("entry", "error"),
        [
            (FindingMade("mark", "rod-bent", Side.BATTER, 9), BadLayout),
            (FindingMade("mark", "rod-bent", Side.BATTER), BadFinding),
            (FindingMade("mark", "dents"), BadFinding),
            (FindingMade("mark", "strand-bent"), BadFinding),  # a rack tom has no wires
            (FindingMade("mark", "dents", Side.RESONANT), BadFinding),  # the job is about the batter
            (FindingMade("mark", "moths", Side.BATTER), BadFinding),
            (FindingMade("polish", "dents", Side.BATTER), BadEvent),
            (PutRight("e9"), BadEvent),
        ],
    )
    def test_that_cannot_be_is_refused(self, entry: Entry, error: type[Exception]) -> None:
        with pytest.raises(error):
            require_fits(after(plan()), entry)

    def test_that_leaves_too_few_rods_is_refused_with_what_to_do(self) -> None:
        four = plan(rods=4)
        first = FindingMade("mark", "rod-missing", Side.BATTER, 1)
        with pytest.raises(BadLayout, match="Fit rods"):
            require_fits(after(four, first), FindingMade("mark", "rod-missing", Side.BATTER, 2))


class TestBothHeads:
    """Several clearing steps in one job, each with its own rounds, target and tally."""

    def test_have_rounds_targets_and_tallies_of_their_own(self) -> None:
        entries = [
            TargetChosen("240", Side.RESONANT).read(440),
            TargetChosen("200", Side.BATTER).read(440),
            StepDone("resonant-fingers"),
            turned("resonant-tension", 0, 1, Turns(16)),
            *readings(0, 240, 241, 242, 240, 241, 242, step="resonant-clear"),
            *readings(0, 200, 201, 202, 200, 201, 202, step="batter-clear"),
            *readings(0, 239, 239, 239, 239, 239, 239, step="read-again"),
        ]
        state = after(BOTH, *entries)
        assert state.target(Side.RESONANT) != state.target(Side.BATTER)
        assert (state.tally(Side.RESONANT) or {})[1] == Turns(16)
        assert state.tally(Side.BATTER) is None
        last = state.last_read(Side.RESONANT)
        assert last is not None
        assert last.readings[1].value.hz == 239  # the second look at it
        assert len(state.rounds(Side.RESONANT)) == 2

    def test_say_which_head_is_in_hand(self) -> None:
        done = [StepDone(step.id) for step in BOTH.steps if step.when.holds(())]
        before = [each.step for each in done].index("resonant-clear")
        state = after(BOTH, *done[:before])
        assert where(state).startswith("resonant, ")

    def test_readings_go_to_the_step_they_were_made_in(self) -> None:
        with pytest.raises(BadEvent, match="no rounds"):
            require_fits(after(BOTH), read(0, 1, "200", step="to-batter"))
        with pytest.raises(BadEvent, match="no step"):
            require_fits(after(BOTH), read(0, 1, "200", step="clear"))


def test_cadence_is_chosen_apart_for_slackening_and_tightening() -> None:
    state = after(
        plan(kind=DrumKind.FLOOR_TOM, rods=8), CadenceChosen(Cadence.PAIR), CadenceChosen(Cadence.ROD, down=True)
    )
    assert (state.cadence(down=False), state.cadence(down=True)) == (Cadence.PAIR, Cadence.ROD)
    fresh = after(plan())
    assert (fresh.cadence(False), fresh.cadence(True)) == (Cadence.ROD, Cadence.PASS)  # slackening needs no counting


def test_many_rods_in_one_entry_count_one_by_one() -> None:
    made = Turned("tension", 0, (RodTurn(1, 16), RodTurn(4, 17), RodTurn(2, 0), RodTurn(5, None)))
    state = after(plan(), StepDone("fingers"), made)
    tally = state.tally(Side.BATTER) or {}
    assert [tally[rod].thirtyseconds for rod in range(1, 7)] == [16, 0, 0, 17, 0, 0]
    assert list(state.laps["tension"][0].owed()) == [3, 6]
    assert made.words(plan()) == "rods 1, 4, 2, 5 turned"


@pytest.mark.parametrize(
    "entry",
    [
        MeansChosen(Means.EAR, 3),
        LeftUneven("rod-down", 1),
        LeftUneven(""),
        Turned("strainer", 0, (RodTurn(1, 8),)),
        read(0, 1, "200", step="strainer"),
    ],
    ids=lambda entry: entry.kind,
)
def test_entries_about_rods_are_refused_in_words_where_a_job_is_about_none(entry: Entry) -> None:
    """Wires have no rods; a rope drum's heads have none either. Such an entry is a mistake of a device, not a crash."""
    wires = after(plan("new-wires", Part.WIRES, DrumKind.SNARE, 8))
    rope = after(plan("new-rope-head", Part.BATTER, DrumKind.ROPE_BASS))
    with pytest.raises(DrumworkError):
        require_fits(wires, entry)
    if isinstance(entry, MeansChosen | LeftUneven) and entry != LeftUneven(""):
        with pytest.raises(DrumworkError, match="no rods"):
            require_fits(rope, entry)
