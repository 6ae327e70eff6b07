"""`drumwork clear --stdio`: the protocol, its errors, and a whole loop through it."""

import json
from io import StringIO
from pathlib import Path
from typing import Any

import pytest

from drumwork.commands.clear import Desk, serve
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

FIRST: dict[str, Any] = {
    "case": "a", "pass": 0, "n_rods": 8, "diam_in": 14, "target_hz": 250.0, "prior_hz_per_turn": 90.0, "step_turns": 0.0625,
    "readings_hz": [250, 255, 250, 244, 250, 255, 250, 244], "partials": None, "applied_turns": None,
}  # fmt: skip


def ask(desk: Desk, **changes: Any) -> dict[str, Any]:
    return desk.answer(json.dumps({**FIRST, **changes}))


def test_turns_are_whole_steps_up_for_low_and_down_for_high() -> None:
    turns = ask(Desk())["turns"]
    assert all((turn / 0.0625).is_integer() for turn in turns)
    assert turns[3] > 0 > turns[1]


def test_an_even_head_at_the_target_is_done_once_it_can_be_known() -> None:
    desk, answers = Desk(), []
    for number in range(6):
        answers.append(ask(desk, readings_hz=[250.0] * 8, applied_turns=[0] * 8 if number else None))
    assert answers[-1].get("done") is True


def test_a_closed_loop_ends_done_and_truly_even() -> None:
    head = SimulatedHead(RodLayout(8), 250, seed=3, uneven=0.02, noise=0.001, answer_per_turn=0.6)
    desk, applied = Desk(), None
    for number in range(10):
        readings = [pitch.hz for pitch in head.tap().values()]
        answer = ask(desk, **{"pass": number}, readings_hz=readings, applied_turns=applied, step_turns=0.03125)
        if answer.get("done"):
            break
        applied = answer["turns"]
        head.turn({rod: Turns(round(turn * 32)) for rod, turn in enumerate(applied, start=1)})
    assert answer.get("done"), answer
    true = list(head.true_hz().values())
    assert max(true) - min(true) <= 2.5
    assert abs(sum(true) / 8 / 250 - 1) <= 0.01


def test_no_rod_is_eased_near_finger_tight_and_the_count_is_carried_on() -> None:
    """Trade: never back to finger-loose while clearing (common practice, no source)."""
    desk, low = Desk(), [0.1875] * 8
    assert min(ask(Desk())["turns"]) < -0.0625
    assert min(ask(desk, counted_turns=low)["turns"]) >= -0.0625
    readings = [290, 295, 290, 284, 290, 295, 290, 284]
    assert -0.5625 <= min(ask(desk, readings_hz=readings, applied_turns=[0.5] * 8)["turns"]) < -0.0625


@pytest.mark.parametrize("counted", [[1.0] * 7, "many", [True] * 8, [99.0] * 8, [None] * 8])
def test_a_count_that_is_none_is_refused_with_its_field(counted: object) -> None:
    error = ask(Desk(), counted_turns=counted)["error"]
    assert error["code"] == "bad_quantity"
    assert "counted_turns" in error["fields"]


def test_bad_lines_are_answered_and_the_next_is_read() -> None:
    lines = [
        "nonsense",
        json.dumps({**FIRST, "readings_hz": [1, 2]}),
        json.dumps({**FIRST, "n_rods": 99}),
        "",
        json.dumps(FIRST),
    ]
    out = StringIO()
    serve(lines, out)
    answers = [json.loads(line) for line in out.getvalue().splitlines()]
    assert ["error" in each for each in answers] == [True, True, True, False]
    assert all(each["error"]["message"] for each in answers[:3])


@pytest.mark.parametrize(
    "changes",
    [
        {"target_hz": -1},
        {"target_hz": None},
        {"step_turns": 0},
        {"case": None},
        {"case": [1]},
        {"readings_hz": ["250"] * 8},
        {"readings_hz": [2_100] * 8, "target_hz": 1_900, "sure": list(range(1, 9))},
        {"prior_hz_per_turn": "much"},
    ],
)
def test_impossible_requests_are_refused_in_words(changes: dict[str, Any]) -> None:
    assert ask(Desk(), **changes)["error"]["message"]


def test_a_missing_reading_is_done_without() -> None:
    assert len(ask(Desk(), readings_hz=[250, 255, None, 244, 250, 255, 250, 244])["turns"]) == 8


def test_partials_are_read_as_the_blend_a_rod_hears() -> None:
    """A rod between two modes at 248 and 252 Hz hears them equally: its linear reading lies between, whichever peak is taller."""
    high_low = [[[248.0, 1.0], [252.0, 0.98], [400.0, 3.0]]] * 8
    plain = ask(Desk(), readings_hz=[248.0] * 8, partials=high_low, target_hz=250)
    assert plain["predicted_hz"] == pytest.approx([250.0] * 8, abs=0.6)


def test_cases_are_drums_of_their_own() -> None:
    desk = Desk()
    first = ask(desk)
    ask(desk, case="other", readings_hz=[300] * 8)
    assert ask(Desk())["turns"] == first["turns"]


def test_the_page_about_it_shows_what_it_answers() -> None:
    page = (Path(__file__).parents[2] / "docs" / "clear.md").read_text()
    blocks, desk = [block.split("```")[0].strip() for block in page.split("```json")[1:]], Desk()
    assert len(blocks) == 4
    for request, answer in zip(blocks[::2], blocks[1::2], strict=True):
        assert desk.answer(request) == json.loads(answer)


def test_a_tap_between_turns_is_checked_like_all_else() -> None:
    desk = Desk()
    told = {"rod": 1, "hz": 251.0, "turned": 0.0625}
    assert "Tap round the head once" in ask(desk, tapped=told)["error"]["message"]
    ask(desk)
    for wrong, words in (
        ({**told, "rod": 9}, "rod"),
        ({**told, "rod": "1"}, "number of the rod"),
        ({**told, "hz": None}, "“hz” is what the rod read"),
        ({**told, "turned": 99}, "-8 to 8"),
        ([], "“tapped” is an object"),
    ):
        assert words in ask(desk, tapped=wrong)["error"]["message"]
    assert ask(desk, tapped=told)["ask"] in ("turn", "round")


def test_the_pair_of_a_round_is_told_and_none_where_rods_ring_each_for_itself() -> None:
    apart = [[[hz, 1.0]] for hz in (250, 255, 250, 244, 250, 255, 250, 244)]
    assert ask(Desk(), partials=apart)["pair"] is None
