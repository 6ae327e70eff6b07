"""A split shell stops the job where it is, and it goes on when the drum is back (common practice, §18: qualified people)."""

from benches import after, plan

from drumwork.drums import Side
from drumwork.work.fold import where
from drumwork.work.kinds.common import StepDone
from drumwork.work.kinds.finding import FindingMade

SPLIT = FindingMade("clean", "shell-split", None)
TO_CLEAN = [StepDone(step) for step in ("lay-out", "mark", "slacken", "lift-off", "clean")]


def test_a_split_shell_stops_the_job_and_says_why() -> None:
    state = after(plan(), *TO_CLEAN, SPLIT)
    assert state.now is not None
    assert state.now.kind == "stop"
    assert "qualified person" in state.now.say
    assert where(state) == "batter, stopped, with a qualified person"


def test_it_goes_on_when_the_drum_is_back() -> None:
    state = after(plan(), *TO_CLEAN, SPLIT, StepDone("stop-shell"))
    assert state.now is not None
    assert state.now.side is Side.BATTER
    assert state.now.id == "set-head"
