"""The bench as a person sees it."""

from __future__ import annotations

import re
from fractions import Fraction

from selenium.webdriver.common.keys import Keys

from drumwork.quantities import Turns
from drumwork.simulated import SimulatedHead
from e2e.support.browser import SEEN, Browser

AMOUNT = re.compile(r"(up|down) ((?:\d+ )?\d+(?:/\d+)?)")


def amount_of(words: str) -> Turns:
    """'up 1 1/2' as turns."""
    match = AMOUNT.search(words)
    assert match, words
    size = sum((Fraction(part) for part in match[2].split()), Fraction(0))
    return Turns.from_fraction(size if match[1] == "up" else -size)


STATE = f"""{SEEN}
const shown = (css) => [...document.querySelectorAll(css)].filter(seen).map(words)
const steps = shown('li[aria-current=step]'), button = shown('[data-testid=main-action]')
return steps.length ? [...steps, ...shown('[data-testid=instruction]'), ...button].join('|') : null
"""


class Bench:
    """Works the big button by mouse, or the space bar by keyboard."""

    def __init__(self, browser: Browser, keyboard: bool = False) -> None:
        self.browser, self.keyboard = browser, keyboard

    @property
    def job(self) -> str:
        return self.browser.driver.current_url.rsplit("/", 1)[1]

    @property
    def main(self) -> str:
        """The words of the big button."""
        return self._words("[data-testid=main-action]").split("\n")[0]

    def step(self) -> str:
        return self._words("li[aria-current=step]").split(",")[0].strip()

    def _words(self, css: str) -> str:
        return self.browser.until(f"“{css}”", lambda: self.browser.words(css))[0]

    def state(self) -> str | None:
        """The step, the instruction and the big button in one question; none once the job is closed."""
        return self.browser.script(STATE)

    def go_on(self) -> None:
        """Do the one next thing, and wait until the bench shows another."""
        if self.main.startswith("First:"):
            self.say_what_must_be_known()
        before = self.browser.until("a step", self.state)
        if self.keyboard:
            self.browser.script("document.activeElement && document.activeElement.blur()")
            self.browser.keys(" ")
        else:
            self._click_main()
        self.browser.until("the bench to move on", lambda: self.state() != before)

    def say_what_must_be_known(self) -> None:
        """The first answer to every question without which the step is not done."""
        while self.main.startswith("First:"):
            asked = self.main
            self.browser.press(self._first_answer(asked.removeprefix("First: ").removesuffix("?")), "button")
            self.browser.until("the answer to count", lambda asked=asked: self.main != asked)  # type: ignore[misc]

    def _first_answer(self, asked: str) -> str:
        code = "return [...document.querySelectorAll('[role=group][aria-label]')].find((e) => e.ariaLabel.toLowerCase() === arguments[0])?.querySelector('button')?.innerText"
        return str(self.browser.until(f"answers to “{asked}”", lambda: self.browser.script(code, asked)))

    def write(self, question: str, text: str) -> None:
        """Type an answer to a question of the step, and keep it."""
        self.browser.write(question, text + Keys.ENTER)
        self.browser.until(f"“{question}” to be kept", lambda: self.last_entry().startswith(question.lower()))

    def last_entry(self) -> str:
        return next(
            (each.split("\n")[1] for each in self.browser.words("[aria-label=Now] p") if each.startswith("Last entry")),
            "",
        )

    def _click_main(self) -> None:
        browser = self.browser
        browser.until("the big button to be free", lambda: browser.click(browser.one("[data-testid=main-action]")))

    def until_step(self, title: str) -> None:
        """Go straight on until this step is in hand."""
        for _ in range(200):
            if self.step() == title:
                return
            self.go_on()
        raise AssertionError(f"never came to {title}")

    def turning(self) -> tuple[int, Turns] | None:
        """The rod in hand and what it is owed, while turning."""
        words = next(iter(self.browser.words("[data-testid=instruction]")), "")
        if "next rod" not in words and "then tap it" not in words:
            return None
        lines = words.split("\n")
        return int(lines[1]), amount_of(lines[2])

    def read_round(self, head: SimulatedHead) -> list[float]:
        """Tap round: type what the simulated head says at every rod asked for."""
        readings = {rod: pitch.hz for rod, pitch in head.tap().items()}
        for rod in head.layout.rods:
            self.browser.sees(f"Pitch at rod {rod}")
            self.browser.until(
                "the field to have the focus",
                lambda: self.browser.script("return document.activeElement.id") == "reading",
            )
            self.browser.keys(f"{readings[rod]:.1f}", Keys.ENTER)
        self.browser.sees("Work out the turns")
        return list(readings.values())

    def turn_round(self, head: SimulatedHead) -> int:
        """Turn what is asked, on the screen and on the simulated head; how many rods that was."""
        count = 0
        while (asked := self.turning()) is not None:
            head.turn({asked[0]: asked[1]})
            self.go_on()
            count += 1
        return count

    def clear(self, head: SimulatedHead, most: int = 6) -> int:
        """Rounds until the app says clear."""
        for number in range(1, most + 1):
            self.read_round(head)
            self.go_on()
            self.browser.until("turns, or clear", lambda: self.turning() or "Pitch-clear" in self.browser.text())
            if "Pitch-clear" in self.browser.text():
                return number
            self.turn_round(head)
        raise AssertionError("not clear in time")


def start_check(browser: Browser, tag: str, sign_in: bool = True, part: str = "batter") -> Bench:
    """A settling check on a drum's head, looked over and ready to be read."""
    if sign_in:
        browser.sign_in()
    browser.go(f"/drums/{tag}/start?work=settling-check&part={part}")
    browser.press("Start")
    browser.sees("Look")
    bench = Bench(browser)
    bench.go_on()
    browser.sees("Pitch at rod 1")
    return bench
