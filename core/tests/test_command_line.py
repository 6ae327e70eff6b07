"""The command line says what the core computes."""

import json
import subprocess
import sys

import pytest

from drumwork.__main__ import VERBS, main


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


@pytest.mark.parametrize(
    ("words", "keys"),
    [
        (["pitch", "F3 +12", "--from", "110"], {"hz", "note", "cents", "ratio"}),
        (
            ["film", "--diameter", "14", "--pitch", "300"],
            {"stress_mpa", "rod_load_n", "highest_safe_hz", "allowed", "words"},
        ),
        (
            ["twoheads", "--diameter", "15", "--depth", "13", "--batter", "175", "--relation", "higher"],
            {"batter_hz", "resonant_hz", "fundamental_hz", "character"},
        ),
        (["settle", "--target", "175", "--seen", "2:25"], {"drop_cents", "leave_at_hz", "next_check_after_days"}),
    ],
)
def test_every_verb_answers_in_words_and_in_json(
    words: list[str], keys: set[str], capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(words) == 0
    assert capsys.readouterr().out.strip()
    assert main([*words, "--json"]) == 0
    assert keys <= set(json.loads(capsys.readouterr().out))


@pytest.mark.parametrize(
    "words",
    [
        ["pitch", "abc"],
        ["film", "--diameter", "0", "--pitch", "300"],
        ["twoheads", "--diameter", "15", "--depth", "13"],
        ["settle", "--target", "175", "--seen", "x"],
    ],
)
def test_every_verb_refuses_with_a_sentence(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert main(words) == 2
    assert capsys.readouterr().err.startswith("drumwork: ")


def test_a_verb_brings_in_only_what_it_needs() -> None:
    """Numbers in arrays are not needed to read a note; starting them takes longer than all the rest."""
    asked = "import sys; from drumwork.__main__ import main; main(['pitch', 'A4']); sys.exit('numpy' in sys.modules)"
    done = subprocess.run([sys.executable, "-c", asked], capture_output=True, text=True, check=False)
    assert (done.returncode, done.stdout) == (0, "440.0\tA4\n")  # ISO 16


@pytest.mark.parametrize(
    "words", [["work", "list"], ["work", "plan", "--work", "settling-check", "--kind", "rack-tom", "--rods", "6"]]
)
def test_a_plan_is_made_without_what_only_clearing_needs(words: list[str]) -> None:
    """SciPy took half a second of it."""
    asked = f"import sys; from drumwork.__main__ import main; main({words}); sys.exit('scipy' in sys.modules)"
    assert subprocess.run([sys.executable, "-c", asked], capture_output=True, check=False).returncode == 0


@pytest.mark.parametrize("verb", VERBS)
def test_every_verb_can_be_asked_what_it_takes(verb: str, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as left:
        main([verb, "--help"])
    assert (left.value.code, f"drumwork {verb}" in capsys.readouterr().out) == (0, True)
