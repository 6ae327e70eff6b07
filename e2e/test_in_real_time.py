"""Hands off: a round of taps through a microphone, as it sounds, fills the ladder. Nothing may run beside it: a busy machine tears the sound."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from drumwork.commands.sound_files import write_sound
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedDrum
from e2e.pages.bench import start_check
from e2e.support.browser import Browser
from e2e.support.installation import Installation
from e2e.support.stored import heard_taps, readings

RATE = 44_100
SNARE = "MQ-003"  # ten rods
LEAD_S, APART_S = 3.0, 1.6


def microphone(path: Path, taps: list[np.ndarray]) -> Path:
    """A recording the fake microphone plays once: silence first, zeros at the end."""
    sound = np.zeros(int((LEAD_S + APART_S * (len(taps) + 4)) * RATE))
    for number, tap in enumerate(taps):
        at = int((LEAD_S + number * APART_S) * RATE)
        sound[at : at + len(tap)] += tap
    room = 2e-4 * np.random.default_rng(0).standard_normal(len(sound))
    room[: int(0.6 * RATE)] = room[-RATE:] = 0.0
    write_sound(path, sound + room, RATE)
    return path


def test_a_round_of_ten_rods_fills_the_ladder_hands_off(installation: Installation, tmp_path: Path) -> None:
    drum = SimulatedDrum(RodLayout(10), 300.0, 0.178, seed=4, uneven=0.05)
    taps = []
    for rod in drum.layout.rods:
        good = drum.tap(rod, RATE, seed=rod, snr_db=50)
        if rod == 4:  # missed: the stick only brushes the hoop, so the rod is asked for again
            knock = np.random.default_rng(9).standard_normal(900) * np.exp(-np.arange(900) / 150) * 0.3
            taps.append(np.concatenate([np.zeros(6000), knock]))
        if rod == 7:  # a double hit
            taps.append(np.concatenate([good[:15_000], good[6_000 : len(good) - 9_000]]) + 0.0)
        taps.append(good)
    taps.append(good)  # spare: should an overloaded machine tear one tap, the last rod is tapped once more
    browser = Browser(installation.server.url, microphone=microphone(tmp_path / "round.wav", taps))
    try:
        bench = start_check(browser, SNARE)
        browser.press("Change")
        browser.write("Bring every rod to", "300")
        browser.press("Bring it there")
        browser.press("Listen")
        try:
            browser.until("all ten rods", lambda: len(readings(installation, bench.job)) == 10, seconds=60)
        except AssertionError as error:
            raise AssertionError(f"Heard: {heard_taps(installation, bench.job)}") from error
        browser.sees("Work out the turns")
        low, high = drum.sounding().pair_hz
        for heard in readings(installation, bench.job).values():
            assert min(abs(1200 * np.log2(heard / each)) for each in (low, high)) < 8
    finally:
        browser.close()
