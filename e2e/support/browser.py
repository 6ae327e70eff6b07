"""Debian's Chromium, headless, in a size to the pixel."""

from __future__ import annotations

import re
import shutil
import subprocess
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

from selenium import webdriver
from selenium.common.exceptions import (
    ElementClickInterceptedException,
    JavascriptException,
    NoSuchElementException,
    StaleElementReferenceException,
)
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

T = TypeVar("T")
FLAGS = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-quic",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--no-default-browser-check",
    "--hide-scrollbars",
    "--force-device-scale-factor=1",
]

# Asked in the page in one go: a question a control would take a hundred times as long.
SEEN = """
const seen = (e) => e.checkVisibility({visibilityProperty: true}) && e.getClientRects().length > 0
const words = (e) => e.innerText.split('\\n').map((line) => line.trim()).filter(Boolean).join('\\n')
"""
PATIENCE_S = 60.0
"""How long a state is waited for at most. An entry shows once it is on the device's disk, and a starved machine's disk can take long."""
STEADY = """
const [control, told] = [arguments[0], arguments[arguments.length - 1]];
let where;
const next = () => {  // a page behind another draws no frames
  const go = () => { cancelAnimationFrame(frame); clearTimeout(late); look(); };
  const frame = requestAnimationFrame(go), late = setTimeout(go, 100);
};
const look = () => {
  const {x, y, width, height} = control.getBoundingClientRect(), now = [x, y, width, height].join();
  if (now !== where) { where = now; return next(); }
  control.came = false;
  control.addEventListener('pointerdown', () => { control.came = true; }, {capture: true, once: true});
  told(control.isConnected && !control.matches(':disabled'));
};
look();
"""
"""Once a control lies still from one frame to the next: whether it can be pressed. Then it tells whether a press came to it."""
IN_HAND = """
const e = document.activeElement
return e === document.body ? '' : e.getAttribute('aria-label') || e.labels?.[0]?.innerText || e.innerText || ''
"""
KEPT_BY_PEOPLE = "cookies,file_systems,indexeddb,local_storage"
"""All but the app itself, which the service worker keeps: it is the same for everybody."""
CONTROLS = "button, a, [role=menuitem], label, [role=radio]"
SIGNED_IN: dict[tuple[str, str], list[dict[str, Any]]] = {}  # cookies by address and name


def _ears(microphone: Path | None, refused: bool) -> list[str]:
    """Flags for a microphone that plays a file once, or one that is refused."""
    if refused:
        return ["--use-fake-device-for-media-stream", "--deny-permission-prompts"]
    if microphone is None:
        return []
    return [
        "--use-fake-ui-for-media-stream",
        "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-audio-capture={microphone}%noloop",
        "--autoplay-policy=no-user-gesture-required",
    ]


def _eyes(camera: Path | None) -> list[str]:
    """Flags for a camera that shows a film over and over."""
    if camera is None:
        return []
    return [
        "--use-fake-ui-for-media-stream",
        "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-video-capture={camera}",
    ]


class Browser:
    """One browser with a profile of its own, and words for what people do in it."""

    def __init__(
        self,
        base: str,
        width: int = 1280,
        height: int = 800,
        profile: str | None = None,
        microphone: Path | None = None,
        microphone_refused: bool = False,
        camera: Path | None = None,
        called: str = "",
        trusts: str = "",
    ) -> None:
        self.base, self.profile = base, profile or tempfile.mkdtemp(prefix="red-tally-chromium-")
        options = webdriver.ChromeOptions()
        options.binary_location = "/usr/bin/chromium"
        for flag in (*FLAGS, f"--user-data-dir={self.profile}"):
            options.add_argument(flag)
        for flag in (*_ears(microphone, microphone_refused), *_eyes(camera)):
            options.add_argument(flag)
        if called:  # a name of this machine on the network; browsers do not trust it as they do loopback
            options.add_argument(f"--host-resolver-rules=MAP {called} 127.0.0.1")
        if trusts:  # the one server key, by its hash: as a device does that was told to trust the shop's certificate
            options.add_argument(f"--ignore-certificate-errors-spki-list={trusts}")
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        self.driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        self.size(width, height)

    def size(self, width: int, height: int) -> None:
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    def fresh(self) -> None:
        """As if just unpacked: one window, nothing stored, the network there."""
        first, *others = self.driver.window_handles
        for handle in others:
            self.driver.switch_to.window(handle)
            self.driver.close()
        self.driver.switch_to.window(first)
        self.network(True)
        self.driver.get("about:blank")
        self.driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
        self.driver.execute_cdp_cmd("Storage.clearDataForOrigin", {"origin": self.base, "storageTypes": KEPT_BY_PEOPLE})
        self.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})
        self.size(1280, 800)
        self.driver.get_log("browser")

    def close(self) -> None:
        self.driver.quit()
        shutil.rmtree(self.profile, ignore_errors=True)

    def kill(self) -> None:
        """The browser dies at once; its profile stays on the disk."""
        process = self.driver.service.process
        subprocess.run(["pkill", "-KILL", "-f", self.profile], check=False)
        process.kill()

    def go(self, path: str) -> None:
        self.driver.get(self.base + path)

    def until(self, what: str, found: Callable[[], T | None], seconds: float = PATIENCE_S) -> T:
        """The first true answer of `found`, or a failure naming what was waited for."""
        end, pause = time.monotonic() + seconds, 0.04
        while time.monotonic() < end:
            try:
                if answer := found():
                    return answer
            except (StaleElementReferenceException, NoSuchElementException, JavascriptException):
                pass
            time.sleep(pause)
            pause = min(0.2, pause * 1.25)  # asking costs the page time that it needs itself
        raise AssertionError(f"Waited {seconds:.0f} s for {what}. The page says: {self.text()[:1500]}")

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def one(self, css: str) -> WebElement:
        code = f"{SEEN} return [...document.querySelectorAll(arguments[0])].find(seen)"
        return self.until(f"“{css}”", lambda: self.script(code, css))

    def words(self, css: str) -> list[str]:
        """The words of everything in sight that matches."""
        code = f"{SEEN} return [...document.querySelectorAll(arguments[0])].filter(seen).map(words)"
        return list(self.script(code, css))

    def named(self, words: str, css: str = CONTROLS) -> WebElement:
        """The control whose words begin so."""
        code = f"{SEEN} return [...document.querySelectorAll(arguments[0])].find((e) => seen(e) && words(e).startsWith(arguments[1]))"
        return self.until(f"a control “{words}”", lambda: self.script(code, css, words))

    def press(self, words: str, css: str = CONTROLS) -> None:
        self.until(f"“{words}” to be pressed", lambda: self.click(self.named(words, css)))

    def ready(self, words: str, css: str = CONTROLS) -> None:
        """Until the control whose words begin so can be used."""
        self.until(f"“{words}” to be ready", lambda: self.named(words, css).is_enabled())

    def click(self, control: WebElement) -> bool:
        """Click it, unless it is disabled or covered, or moved away under the click: whether the press came to it."""
        if not self.driver.execute_async_script(STEADY, control):
            return False
        try:
            control.click()
        except ElementClickInterceptedException:
            # A foot that stays in sight lies over it: scroll on, as a person would.
            self.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", control)
            return False
        try:
            return bool(self.driver.execute_script("return arguments[0].came", control))
        except StaleElementReferenceException:  # it did its work and went
            return True

    def field(self, label: str) -> WebElement:
        """The input under this label."""
        path = f"//label[starts-with(normalize-space(.), '{label}')]"

        def found() -> WebElement | None:
            for each in self.driver.find_elements(By.XPATH, path):
                inside = each.find_elements(By.CSS_SELECTOR, "input, select, textarea")
                target = inside[0] if inside else self.driver.find_element(By.ID, each.get_attribute("for") or "")
                if target.is_displayed():
                    return target
            return None

        return self.until(f"a field “{label}”", found)

    def write(self, label: str, text: str) -> None:
        field = self.field(label)
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text)

    def keys(self, *keys: str) -> None:
        self.driver.switch_to.active_element.send_keys(*keys)

    def tab_to(self, words: str, most: int = 120, back: bool = False) -> None:
        """By the keyboard alone: on to the control whose words or label begin so (a pattern)."""
        for _ in range(most):
            if re.match(words, str(self.script(IN_HAND)).strip()):
                return
            self.keys(Keys.SHIFT + Keys.TAB if back else Keys.TAB)
        raise AssertionError(f"“{words}” was not reached in {most} steps. The page says: {self.text()[:1500]}")

    def text(self) -> str:
        return str(self.script(f"{SEEN} return words(document.body)"))

    def sees(self, words: str, seconds: float = PATIENCE_S) -> None:
        self.until(f"the words “{words}”", lambda: words in self.text(), seconds)

    def script(self, code: str, *args: Any) -> Any:
        return self.driver.execute_script(code, *args)

    def network(self, on: bool) -> None:
        """Pull the plug, or put it back."""
        self.driver.execute_cdp_cmd("Network.enable", {})
        conditions = {"offline": not on, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.driver.execute_cdp_cmd("Network.emulateNetworkConditions", conditions)

    def console_errors(self) -> list[str]:
        """Severe console messages, without the network errors the tests themselves cause."""
        return [
            entry["message"]
            for entry in self.driver.get_log("browser")
            if entry["level"] == "SEVERE" and "Failed to load resource" not in entry["message"]
        ]

    def sign_in(self, username: str = "ines", password: str = "slack-water-41") -> None:
        """Signed in, by hand the first time and again whenever the session is gone."""
        for cookie in SIGNED_IN.get((self.base, username), []):
            kept = {key: cookie[key] for key in ("name", "value", "path", "httpOnly")}
            self.driver.execute_cdp_cmd("Network.setCookie", {"url": self.base, **kept})
        self.go("/")
        self.until("a page", lambda: "Sign in" in self.text() or self.all("nav[aria-label=Views]"))
        if not self.all("nav[aria-label=Views]"):
            self.write("Name", username)
            self.write("Password", password)
            self.press("Sign in", "button")
        self.one("nav[aria-label=Views]")
        SIGNED_IN[self.base, username] = self.driver.get_cookies()

    def picture(self, path: str) -> None:
        self.driver.save_screenshot(path)
