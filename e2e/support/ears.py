"""A microphone that hears what a journey gives it, at once: the page waits for nothing but its own work."""

from __future__ import annotations

import base64

import numpy as np
from numpy.typing import NDArray

from e2e.support.browser import Browser

RATE = 44_100
EAR = """
window.AudioContext = class extends AudioContext { constructor(given) { super({sampleRate: %d, ...given}) } };
window.AudioWorkletNode = class extends GainNode {
  constructor(context) {
    super(context);
    this.port = {onmessage: null};
    window.hears = (bytes) => {
      const told = new Int16Array(Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0)).buffer);
      const sound = Float32Array.from(told, (each) => each / 32768);
      for (let at = 0; at + 512 <= sound.length; at += 512) this.port.onmessage({data: sound.slice(at, at + 512)});
    };
  }
};
"""
"""In the page: what would come from the sound card block by block comes when `hears` is called, and by it alone."""


def ears(browser: Browser) -> Browser:
    """The browser, opened with a microphone, from now on hears only what it is given by `hear`."""
    browser.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": EAR % RATE})
    return browser


def hear(browser: Browser, tap: NDArray[np.float64] | None = None) -> None:
    """A second and a half of a quiet room, and in it a tap."""
    room = 2e-4 * np.random.default_rng(0).standard_normal(int(1.5 * RATE))
    sound = room if tap is None else np.concatenate([room, tap, room])
    told = np.clip(np.round(sound * 32767), -32768, 32767).astype("<i2")
    browser.until("an open ear", lambda: browser.script("return Boolean(window.hears)"))
    browser.script("window.hears(arguments[0])", base64.b64encode(told.tobytes()).decode())
