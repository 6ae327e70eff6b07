"""The command line says what the core computes."""

import json

import pytest

from drumwork.__main__ import main


def test_pattern_prints_one_rod_per_field(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["pattern", "--rods", "8", "--pattern", "star", "--start", "1"]) == 0
    assert capsys.readouterr().out == "1\t5\t2\t6\t3\t7\t4\t8\n"


def test_pattern_as_json_tells_whether_the_rule_reaches_all(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["pattern", "--rods", "6", "--pattern", "every-third", "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert answer["reaches_all"] is False
    assert sorted(answer["order"]) == [1, 2, 3, 4, 5, 6]


@pytest.mark.parametrize(
    "words", [["--rods", "3"], ["--rods", "8", "--pattern", "spiral"], ["--rods", "8", "--start", "9"]]
)
def test_bad_requests_end_with_a_sentence_and_status_two(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["pattern", *words]) == 2
    assert capsys.readouterr().err.startswith("drumwork: ")
