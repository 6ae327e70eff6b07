"""`drumwork listen` and `drumwork simulate`, as they are typed."""

import io
import json
from pathlib import Path

import pytest

from drumwork.__main__ import main

FIELDS = {"file", "status", "hz", "cents_sigma", "reason", "partials", "strength_db", "glide_cents", "onset_s"}


@pytest.fixture
def round_wav(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> Path:
    path = tmp_path / "round.wav"
    assert main(["simulate", str(path), "--rods", "6", "--pitch", "200", "--split", "0"]) == 0
    capsys.readouterr()
    return path


def test_a_simulated_round_is_read_tap_by_tap(round_wav: Path, capsys: pytest.CaptureFixture[str]) -> None:
    main(["listen", str(round_wav), "--taps", "--json", "--expect-hz", "207", "--diameter-in", "14"])
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert len(answers) == 6
    assert all(each.keys() == FIELDS for each in answers)
    assert [each["hz"] for each in answers] == pytest.approx([200] * 6, abs=0.7)
    truth = json.loads(round_wav.with_suffix(".json").read_text())
    assert [each["onset_s"] for each in answers] == pytest.approx(list(truth["taps_s"].values()), abs=0.02)


def test_a_batch_answers_every_line_in_order_and_goes_on_after_a_bad_one(
    round_wav: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    lines = [
        json.dumps({"file": "gone.wav", "expect_hz": None}),
        "{not json",
        json.dumps({"file": str(round_wav), "expect_hz": "high"}),
        json.dumps({"file": str(round_wav), "expect_hz": 200, "centre_hz": 120, "diameter_in": 14, "at": "edge"}),
    ]
    monkeypatch.setattr("sys.stdin", io.StringIO("\n".join(lines) + "\n"))
    assert main(["listen", "--batch", "-"]) == 0
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert [each["status"] for each in answers] == ["refuse"] * 4  # the last holds six taps
    assert all(each["reason"] for each in answers)
    assert [each["file"] for each in answers] == ["gone.wav", None, str(round_wav), str(round_wav)]


def test_nothing_to_listen_to_is_said(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["listen"]) == 2
    assert "sound files" in capsys.readouterr().err
