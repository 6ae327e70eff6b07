"""Bad words on the command line end with a sentence and status two: no traceback, and nothing passed over in silence."""

from __future__ import annotations

import io
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.__main__ import main

FILM, SETTLE = ["film", "--diameter", "14", "--pitch", "300"], ["settle", "--target", "200"]
ODD = ["0", "-1", "-2", "nan", "inf", "-inf", "1e9", "1e400", "x", "", "²", "9" * 30]


def said(words: list[str], capsys: pytest.CaptureFixture[str]) -> tuple[int, str]:
    try:
        status = main(words)
    except SystemExit as end:
        status = int(end.code or 0)
    return status, capsys.readouterr().err


@pytest.mark.parametrize(
    "words",
    [
        ["pitch", "A3", "--a4", "0"], ["pitch", "200", "--a4", "nan"], [*FILM, "--rods", "0"], [*FILM, "--rods", "99"],
        [*FILM, "--thread", "xyz"], [*FILM, "--mil", "nan"], [*SETTLE, "--seen", "0:18"], [*SETTLE, "--seen", "2:nan"],
        [*SETTLE, "--seen", "2:18", "x"], [*SETTLE, "--days", "nan"], ["simulate", "o.wav", "--rate", "10"],
        ["simulate", "o.wav", "--every", "-2"], ["simulate", "o.wav", "--every", "1e9"], ["simulate", "o.wav", "--seed", "-5"],
        ["simulate", "o.wav", "--split", "nan"], ["simulate", "no/such/folder/o.wav"], ["listen", "nope.wav"],
    ],
    ids=" ".join,
)  # fmt: skip
def test_it_says_what_is_wrong(
    words: list[str], capsys: pytest.CaptureFixture[str], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    status, error = said(words, capsys)
    assert status == 2
    assert "drumwork" in error
    assert len(error.strip().splitlines()[-1]) > 30
    assert list(tmp_path.iterdir()) == []


@pytest.mark.parametrize("verb", [["listen", "--batch", "-"], ["clear", "--stdio"]], ids=" ".join)
@pytest.mark.parametrize("line", ["[" * 100_000, '{"a":' * 50_000, "{", "null", "1e999", '"\\ud800"', ""])
def test_a_bad_line_of_json_gets_an_answer_and_the_next_is_read(
    verb: list[str], line: str, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("sys.stdin", io.StringIO(f"{line}\n{{}}\n"))
    assert main(verb) == 0
    assert len(capsys.readouterr().out.splitlines()) == (2 if line else 1)


@settings(max_examples=150, derandomize=True)
@given(
    verb=st.sampled_from([["simulate", "/nowhere/at/all.wav"], FILM, SETTLE, ["pitch", "200"], ["twoheads", "--diameter", "14", "--depth", "6"]]),
    option=st.sampled_from(
        ["rods", "diameter", "pitch", "depth", "mil", "other-mil", "split", "axis", "strength", "inset-mm", "snr-db", "distance", "room", "wires",
         "rate", "seed", "days", "share", "seen", "a4", "from", "plies", "thread", "film", "target", "fundamental", "batter"]
    ),
    value=st.sampled_from(ODD),
)  # fmt: skip
def test_no_odd_value_of_any_option_ends_in_a_traceback(verb: list[str], option: str, value: str) -> None:
    try:
        status = main([*verb, f"--{option}={value}"])
    except SystemExit as end:
        status = int(end.code or 0)
    assert status in (0, 2)
