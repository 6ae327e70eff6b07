"""Taps heard through a microphone, from a recording and from a simulated drum: what becomes of them, and how they are put right."""

from __future__ import annotations

import base64
import io
from pathlib import Path

import numpy as np
import pytest
import soundfile

from drumwork.commands.sound_files import write_sound
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedDrum
from e2e.pages.bench import Bench, start_check
from e2e.support.browser import Browser
from e2e.support.ears import RATE, ears, hear
from e2e.support.installation import Installation
from e2e.support.stored import heard_taps, readings


def test_the_simulated_drum_is_cleared_by_listening_alone(installation: Installation, browser: Browser) -> None:
    bench = start_check(browser, "MQ-031")
    browser.press("Simulated drum")  # it goes on listening, round after round
    for number in range(1, 5):  # noqa: B007 - read after the loop
        browser.sees("Work out the turns", seconds=30)
        bench.go_on()
        browser.until("turns, or clear", lambda: bench.turning() or "Pitch-clear" in browser.text())
        if "Pitch-clear" in browser.text():
            break
        while bench.turning() is not None:
            bench.go_on()
    assert "Pitch-clear" in browser.text()
    assert number <= 4  # at most three rounds of turns


def test_an_open_other_head_tuned_alike_is_told_and_muted(installation: Installation, browser: Browser) -> None:
    alike = "update register_drum set wanted_resonant_hz = wanted_batter_hz where tag = 'MQ-008'"
    installation.cluster.rows(alike, autocommit=True)
    bench = start_check(browser, "MQ-008")
    browser.press("muted")
    browser.press("Simulated drum")
    browser.sees("both heads ring together", seconds=30)
    browser.press("ringing along")
    browser.sees("Work out the turns", seconds=30)
    told = {(other_muted, status) for other_muted, status in heard_how(installation, bench.job)}
    assert ("False", "flag") in told or ("False", "refuse") in told
    assert {status for muted, status in told if muted == "True"} <= {"ok"}


def silence(folder: Path) -> Path:
    """What the microphone itself hears, when the journey gives the page its taps."""
    write_sound(folder / "silence.wav", np.zeros(RATE), RATE)
    return folder / "silence.wav"


def asked_for(browser: Browser, rod: int) -> None:
    browser.until(f"rod {rod} to be asked for", lambda: f"tap at rod\n{rod}\n" in f"{browser.text()}\n")


def heard_how(installation: Installation, job: str) -> list[list[str]]:
    return installation.cluster.rows(f"select other_muted, status from hearing_heardtap where job_id = '{job}'")


def keep_my_sound(browser: Browser, bench: Bench) -> None:
    job = bench.job
    browser.go(f"/bench/{job}/taps")
    browser.sees("Nothing was heard on this job yet")
    browser.press("Keep the sound of my taps")
    browser.until("agreed", lambda: browser.all("label[data-selected]"))
    browser.go(f"/bench/{job}")
    browser.sees("Pitch at rod 1")


def shown_hz(browser: Browser, job: str) -> list[float | None]:
    """Each rod's reading in the first round as the ladder has it."""
    code = "return fetch(`/api/bench/jobs/${arguments[0]}?since=-1`).then(r => r.json())"
    bench = browser.script(code, job)["bench"]
    read = {each["rod"]: each["hz"] for each in bench["figures"]["readings"]}
    return [read.get(rod) for rod in range(1, bench["heads"][0]["rods"] + 1)]


def all_hz(browser: Browser, job: str) -> list[float]:
    """The first round's readings once every rod has one; nothing before."""
    shown = shown_hz(browser, job)
    heard = [each for each in shown if each is not None]
    return heard if len(heard) == len(shown) else []


def test_a_rod_tapped_twice_is_spotted_put_right_with_one_key_and_heard_again(
    installation: Installation, tmp_path: Path
) -> None:
    drum = SimulatedDrum(RodLayout(8), 291.0, 0.178, seed=11, uneven=0.2)
    taps = [drum.tap(rod, RATE, seed=n, snr_db=50) for n, rod in enumerate([1, 2, 3, 3, 4, 5, 6, 7])]
    browser = ears(Browser(installation.server.url, microphone=silence(tmp_path)))
    try:
        bench = start_check(browser, "MQ-002")
        job = bench.job
        keep_my_sound(browser, bench)
        browser.press("Listen")
        for rod, tap in enumerate(taps, 1):
            asked_for(browser, rod)
            hear(browser, tap)
        browser.sees("rod 3 was tapped twice")
        browser.keys("<")
        asked_for(browser, 8)
        hear(browser, drum.tap(8, RATE, seed=20, snr_db=50))

        def as_themselves() -> bool:  # the page moves the taps at once, the server a moment later
            shown = all_hz(browser, job)
            off = [1200 * np.log2(heard / drum.true_hz()[rod]) for rod, heard in enumerate(shown, 1)]
            return bool(off) and max(map(abs, off)) < 25  # rods differ by up to 150 cents on this head

        browser.until("rod 8 to be heard, and every tap to stand at its own rod", as_themselves, seconds=30)
        browser.press("Stop listening")
        browser.go(f"/bench/{job}/taps")
        browser.sees("Choose two taps")
        browser.press("Play", "button[aria-label='Play rod 1']")
        browser.press("Compare", "button[aria-label='Compare rod 1']")
        browser.press("Compare", "button[aria-label='Compare rod 4']")
        browser.sees("First rod 1, then rod 4")
        browser.press("Play both")
        export = "return fetch(`/api/hearing/jobs/${arguments[0]}/export`).then(r => r.arrayBuffer()).then(b => [...new Uint8Array(b).slice(0, 2)])"
        assert browser.script(export, job) == [0x50, 0x4B]  # "PK": a ZIP
        assert not browser.all("[role=alert]")
        browser.press("Delete…")
        browser.press("Delete mine of this job")
        browser.sees("No sound of yours is kept")
        browser.until("nothing to play", lambda: not browser.all("button[aria-label^=Play]"))
    finally:
        browser.close()


def test_a_microphone_unplugged_in_the_middle_loses_nothing(installation: Installation, tmp_path: Path) -> None:
    drum = SimulatedDrum(RodLayout(8), 291.0, 0.178, seed=3)
    taps = [drum.tap(rod, RATE, seed=rod, snr_db=50) for rod in (1, 2)]
    browser = ears(Browser(installation.server.url, microphone=silence(tmp_path)))
    try:
        bench = start_check(browser, "MQ-010")
        browser.script(
            "const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);"
            "navigator.mediaDevices.getUserMedia = async (what) => (window.ear = await open(what))"
        )
        browser.press("Listen")
        for rod, tap in enumerate(taps, 1):
            asked_for(browser, rod)
            hear(browser, tap)
        asked_for(browser, 3)
        browser.script("window.ear.getAudioTracks()[0].dispatchEvent(new Event('ended'))")
        browser.sees("The microphone went away. What was heard is kept")
        browser.one("#reading").send_keys("290", "\n")
        browser.sees("Pitch at rod 4")
        browser.until("the three to be stored", lambda: sorted(readings(installation, bench.job)) == [1, 2, 3])
    finally:
        browser.close()


def test_a_recording_let_fall_on_the_instruction_fills_the_ladder(installation: Installation, browser: Browser) -> None:
    drum = SimulatedDrum(RodLayout(6), 251.0, 0.127, seed=8)
    file = io.BytesIO()
    soundfile.write(file, np.concatenate([drum.tap(rod, RATE, seed=rod) for rod in range(1, 7)]), RATE, format="FLAC")
    bench = start_check(browser, "MQ-018")
    browser.script(
        "const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));"
        "const carried = new DataTransfer(); carried.items.add(new File([bytes], 'round.flac'));"
        "const on = document.querySelector('[data-testid=instruction]');"
        "on.dispatchEvent(new DragEvent('drop', { dataTransfer: carried, bubbles: true, cancelable: true }))",
        base64.b64encode(file.getvalue()).decode(),
    )
    browser.sees("6 of 6 taps taken for 6 rods", seconds=30)
    browser.sees("Work out the turns")
    browser.until("all six to be stored", lambda: len(readings(installation, bench.job)) == 6)


def test_a_refused_microphone_is_said_and_typing_still_works(installation: Installation) -> None:
    browser = Browser(installation.server.url, microphone_refused=True)
    try:
        start_check(browser, "MQ-038")
        browser.press("Listen")
        browser.sees("The microphone was refused")
        browser.one("#reading").send_keys("200", "\n")
        browser.sees("Pitch at rod 2")
    finally:
        browser.close()


def test_a_recording_of_noise_enters_nothing(installation: Installation, browser: Browser, tmp_path: Path) -> None:
    bench = start_check(browser, "MQ-007")
    path = tmp_path / "noise.wav"
    write_sound(path, np.random.default_rng(1).standard_normal(3 * RATE) * 0.2, RATE)
    browser.driver.find_element("css selector", "input[type=file]").send_keys(str(path))
    browser.until("to be told", lambda: "No tap was heard" in browser.text() or "taps taken" in browser.text())
    assert readings(installation, bench.job) == {}


def between_two(path: Path, hz: float, other: float) -> Path:
    """A recording of one tap in which neither partial is plainly the pair."""
    random, t = np.random.default_rng(0), np.arange(RATE) / RATE
    ring = sum(np.exp(-decay * t) * np.sin(2 * np.pi * each * t) for each, decay in ((hz, 7.0), (other, 6.5)))
    tip = 0.5 * random.standard_normal(len(t)) * np.exp(-t / 0.004)
    sound = np.concatenate([np.zeros(6000), 0.2 * ring * (1 - np.exp(-t / 0.0015)) + 0.2 * tip])
    write_sound(path, sound + 2e-4 * random.standard_normal(len(sound)), RATE)
    return path


def test_a_doubtful_tap_is_put_right_with_one_key_and_settled_by_the_middle(
    installation: Installation, browser: Browser, tmp_path: Path
) -> None:
    bench = start_check(browser, "MQ-018", part="resonant")
    browser.press("Change")
    browser.write("Bring every rod to", "205")
    browser.press("Bring it there")
    recording = str(between_two(tmp_path / "tap.wav", 175.0, 235.0))
    browser.driver.find_element("css selector", "input[type=file]").send_keys(recording)
    browser.sees("Rather ")
    browser.sees("Tap the middle once")
    browser.keys("q")
    browser.sees("Hz is taken instead")
    browser.press("Tap the middle")
    browser.keys("175\n")
    browser.sees("The drum’s note, in the middle: 175.0 Hz")
    browser.driver.find_element("css selector", "input[type=file]").send_keys(recording)
    browser.until("a second rod is read", lambda: len(readings(installation, bench.job)) == 2)
    doubted, settled = (float(tap[-1]) for tap in heard_taps(installation, bench.job))
    taken, read = readings(installation, bench.job).values()
    assert sorted([doubted, taken]) == pytest.approx([175, 235], rel=0.002)
    assert [read, settled] == pytest.approx([235, 235], rel=0.002)
    assert [status for _, status in heard_how(installation, bench.job)] == ["flag", "ok"]
