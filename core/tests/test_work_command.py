"""`drumwork work` as others read it: one JSON object, tags in the trade's order, errors in one line."""

import json
from typing import Any

import pytest

from drumwork.__main__ import main
from drumwork.work.cautions import CAUTIONS
from drumwork.work.tags import TAGS


def told(capsys: pytest.CaptureFixture[str], *words: str) -> Any:
    assert main(["work", *words, "--json"]) == 0
    return json.loads(capsys.readouterr().out)


def plan(capsys: pytest.CaptureFixture[str], *words: str) -> dict[str, Any]:
    return dict(told(capsys, "plan", *words))


def test_a_plan_has_the_promised_shape(capsys: pytest.CaptureFixture[str]) -> None:
    found = plan(capsys, "--work", "both-heads", "--kind", "floor-tom", "--rods", "8", "--rods-resonant", "6")
    assert (found["work"], found["version"]) == ("both-heads", 1)
    for step in found["steps"]:
        assert set(step) >= {"id", "kind", "side", "say", "points", "cautions", "tools", "does", "cites"}
        assert set(step["does"]) <= set(TAGS)
        assert set(step["cautions"]) <= set(CAUTIONS)
        assert step["why"]
        assert set(step["before"]) == {"up", "lever", "wires", "batter", "resonant", "inside", "rope"}
    last = found["steps"][-1]["before"]
    assert (last["up"], last["batter"], last["resonant"], last["lever"]) == ("played", "tight", "tight", None)
    resonant = next(step for step in found["steps"] if step["id"] == "resonant-tension")
    assert sorted(resonant["passes"][0]["order"]) == [1, 2, 3, 4, 5, 6]


def test_schools_change_the_order_of_the_heads(capsys: pytest.CaptureFixture[str]) -> None:
    words = ["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--school"]
    for first in ("batter", "resonant"):
        steps = plan(capsys, *words, f"first_head={first}", "stretch=barely")["steps"]
        assert next(step["side"] for step in steps if "slacken" in step["does"]) == first
        assert "Lean lightly" in next(step["say"] for step in steps if "seat" in step["does"])


def test_what_is_found_adds_steps_and_goes_round_lost_rods(capsys: pytest.CaptureFixture[str]) -> None:
    words = ["--work", "new-batter-head", "--kind", "floor-tom", "--rods", "8", "--lost", "2"]
    before = plan(capsys, *words)["steps"]
    after = plan(capsys, *words, "--found", "shell-split", "rod-missing@5", "thread-dry@batter:3")["steps"]
    added = [step for step in after if step["id"] not in {each["id"] for each in before}]
    assert [step["does"] for step in added] == [["stop"]]
    assert added[0]["cautions"] == ["qualified"]
    tension = next(step for step in after if "tension" in step["does"])
    assert set(tension["passes"][0]["order"]) == {1, 3, 4, 6, 7, 8}
    fingers = next(step for step in after if "finger-tight" in step["does"])
    assert any("light grease" in point for point in fingers["points"])


def test_the_list_says_what_suits_and_why_not(capsys: pytest.CaptureFixture[str]) -> None:
    rows = told(capsys, "list", "--kind", "rope-bass")
    assert rows
    assert all(row["suits"] or row["why_not"]["rope-bass"].endswith(".") for row in rows)


def test_words_name_every_tag_caution_and_finding(capsys: pytest.CaptureFixture[str]) -> None:
    words = told(capsys, "words")
    assert words["tags"] == list(TAGS)
    assert {each["id"] for each in words["findings"]} >= {"edge-chipped", "rod-missing", "strand-bent"}


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["--work", "polish", "--kind", "snare", "--rods", "8"], "no work"),
        (["--work", "both-heads", "--kind", "rope-bass", "--rods", "0"], "rope"),
        (["--work", "both-heads", "--kind", "gong", "--rods", "8"], "no kind of drum"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "3"], "4 to 16"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--found", "rod-bent@9"], "no rod 9"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--found", "rod-bent"], "which rod"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--found", "moths"], "Nothing is known"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--school", "logo=moon"], "is one of"),
        (["--work", "both-heads", "--kind", "rack-tom", "--rods", "6", "--school", "hue=red"], "no way"),
        (["--work", "settling-check", "--kind", "rack-tom", "--rods", "6", "--part", "wires"], "is done to"),
    ],
)
def test_what_cannot_be_is_said_in_one_line(capsys: pytest.CaptureFixture[str], words: list[str], says: str) -> None:
    assert main(["work", "plan", *words]) == 2
    error = capsys.readouterr().err
    assert says in error
    assert error.count("\n") == 1


def test_the_list_has_each_work_once_and_no_gap_in_its_title(capsys: pytest.CaptureFixture[str]) -> None:
    rows = told(capsys, "list")
    assert len({row["title"] for row in rows}) == len({row["id"] for row in rows}) == len(rows)
    assert not [row["title"] for row in rows if "{" in row["title"] or "the head in hand" in row["title"]]
