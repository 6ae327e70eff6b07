"""Every view, in both themes: accessible by axe-core, no console errors, nothing from outside, roles respected."""

from __future__ import annotations

import urllib.parse

import pytest

from e2e.pages.bench import start_check
from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation

AXE = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
RUN = """
const done = arguments[arguments.length - 1]
axe.run(document, {runOnly: arguments[0]}).then(r => done(r.violations.map(v =>
  v.id + ': ' + v.nodes.map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? '')).slice(0, 3).join(' | '))))
"""
EVERYTHING = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
COLOURS = {"type": "rule", "values": ["color-contrast"]}  # all that a theme changes


def job(browser: Browser, name: str) -> str:
    items = browser.script("return fetch('/api/today').then(r => r.json())")["items"]
    return next(f"/bench/{item['job_id']}" for item in items if item["name"] == name and item["job_id"])


def address(browser: Browser, path: str) -> str:
    """A view’s own address; of a job by its drum’s name; of the demo’s walk, of a kit by its name."""
    if path.startswith("walk"):
        walks = browser.script("return fetch('/api/inspect/walks').then(r => r.json())")
        return (
            f"/inspect/{next(each['id'] for each in walks if each['name'] == 'pit store')}{path.removeprefix('walk')}"
        )
    if path.startswith("kit "):
        kits = browser.script("return fetch('/api/kits').then(r => r.json())")
        return f"/kits/{next(each['id'] for each in kits if each['name'] == path.removeprefix('kit '))}"
    if path.startswith("call "):
        name, _, at = path.removeprefix("call ").partition("?")
        calls = browser.script("return fetch('/api/callouts').then(r => r.json())")
        return f"/callouts/{next(each['id'] for each in calls if each['name'] == name)}?{at}"
    return path if path.startswith("/") else job(browser, path)


VIEWS = [
    ("/", "owed"),
    ("/drums", "Cormorant"),
    ("/drums/MQ-041", "History"),
    ("/drums/MQ-071", "rope"),
    ("/drums/MQ-081", "Moorhen"),
    ("/drums/new", "Which drum"),
    ("/drums/MQ-041/edit", "Which drum"),
    ("/drums/MQ-035/start?work=new-batter-head&part=batter", "Order of the rods"),
    ("/drums/MQ-001/start?work=settling-check&part=batter", "Order of the rods"),
    ("/drums/MQ-041/sound", "Because"),
    ("/kits", "pageant barge"),
    ("/kits/new", "Add a drum"),
    ("kit pit kit", "Notes keep apart"),
    ("/callouts", "what first?"),
    ("call loan kit?at=bag", "Start the clock"),
    ("call loan kit?at=walk", "Sounds fine"),
    ("call loan kit?at=plan", "The whole plan"),
    ("call circus studio?at=note", "Thank you for having it there"),
    ("/bench", "in hand"),
    ("Heron", "next rod"),
    ("Kittiwake", "in this order"),
    ("Dunlin", "tap at rod"),
    ("Plover", "Clean the edge"),
    ("Drifter", "Resting"),
    ("/ways", "ways"),
    ("/inspect", "Not over yet"),
    ("/inspect/rules", "Common practice"),
    ("/inspect/lives", "Likely within"),
    ("/drums/MQ-033/choose", "Used for"),
    ("walk?at=MQ-007", "Nothing found"),
    ("walk?at=MQ-026", "Decide otherwise"),
    ("walk/sum", "To buy"),
    ("/nowhere", "Nothing here"),
]


def show_theme(browser: Browser, theme: str) -> None:
    browser.script("document.documentElement.dataset.theme = arguments[0]", theme)


def faults(browser: Browser) -> list[str]:
    """What axe-core finds: everything in the Bench theme, then the colours of the Stage theme."""
    browser.script(AXE.read_text(encoding="utf-8"))
    show_theme(browser, "bench")
    found = list(browser.driver.execute_async_script(RUN, EVERYTHING))
    show_theme(browser, "stage")
    found += browser.driver.execute_async_script(RUN, COLOURS)
    show_theme(browser, "bench")
    return found


def test_every_view_is_clean_in_both_themes(browser: Browser) -> None:
    still(browser)  # no colour is half way to another
    browser.go("/")
    browser.sees("Demo accounts")
    found = {"sign-in": faults(browser)}
    browser.sign_in()
    for path, words in VIEWS:
        browser.go(address(browser, path))
        browser.sees(words)
        found[path] = faults(browser)
    heard = f"/bench/{start_check(browser, 'MQ-005', sign_in=False).job}"
    browser.press("Simulated drum")
    browser.sees("Work out the turns", seconds=30)
    found["everything heard"] = faults(browser)
    browser.go(f"{heard}/taps")
    browser.sees("One after the other")
    found["taps"] = faults(browser)
    browser.script("document.activeElement.blur()")
    browser.keys("?")
    browser.sees("page-turn pedal")
    found["keys"] = faults(browser)
    assert {view: each for view, each in found.items() if each} == {}
    assert browser.console_errors() == []


def test_everything_comes_from_this_server(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go(job(browser, "Heron"))
    browser.sees("next rod")
    origins = browser.script("return performance.getEntriesByType('resource').map(e => new URL(e.name).origin)")
    assert set(origins) == {installation.server.url}
    fonts = browser.script("return [...document.fonts].filter(f => f.status === 'loaded').map(f => f.family)")
    assert {"Besley Variable", "Instrument Sans Variable", "Martian Mono Variable"} <= {
        name.strip('"') for name in fonts
    }


def test_a_viewer_looks_on_and_is_offered_nothing_to_do(browser: Browser) -> None:
    browser.sign_in("della")
    browser.go(job(browser, "Heron"))
    browser.sees("next rod")
    assert not browser.all("[data-testid=main-action]")
    browser.go("/drums/MQ-041")
    browser.sees("History")
    assert "Edit" not in browser.text()


@pytest.mark.parametrize(("wide", "high"), [(1280, 800), (800, 1280), (390, 844)])
def test_the_next_action_is_in_sight_without_scrolling(browser: Browser, wide: int, high: int) -> None:
    browser.sign_in()
    browser.size(wide, high)
    browser.go(job(browser, "Heron"))
    browser.sees("next rod")
    box = browser.one("[data-testid=main-action]").rect
    assert box["height"] >= 48
    assert box["y"] + box["height"] <= high
    assert browser.script("return document.documentElement.scrollWidth") <= wide


def test_twelve_rods_fit_beside_the_instruction(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-067/start?work=settling-check&part=batter")
    browser.sees("Order of the rods")
    browser.press("Start on the bench", "button")
    browser.sees("Look the batter head over")
    browser.one("[data-testid=main-action]").click()
    browser.sees("Pitch at rod 1")
    rungs = browser.all("ol[aria-label='Pairs of rods'] > li")
    assert len(rungs) == 6
    assert max(rung.rect["y"] + rung.rect["height"] for rung in rungs) <= 800
    assert browser.script("return document.documentElement.scrollHeight") <= 800


def still(browser: Browser) -> None:
    """The person has asked their device for less motion."""
    wish = [{"name": "prefers-reduced-motion", "value": "reduce"}]
    browser.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": wish})


def test_reduced_motion_stills_the_beams(browser: Browser) -> None:
    still(browser)
    browser.sign_in()
    browser.go(job(browser, "Heron"))
    browser.sees("next rod")
    assert browser.script("return getComputedStyle(document.querySelector('line.now')).transitionDuration") == "0s"


def test_typed_drums_survive_a_reload_and_are_refused_field_by_field(
    browser: Browser, installation: Installation
) -> None:
    browser.sign_in()
    browser.go("/drums/new")
    browser.write("Name", "Grebe")
    browser.write("Diameter", "140")
    browser.write("Depth", "6 1/2")
    browser.press("Enter in the register", "button")
    browser.sees("No drum is that wide")
    browser.driver.refresh()
    browser.until("the name to be there again", lambda: browser.field("Name").get_attribute("value") == "Grebe")
    browser.write("Diameter", "14")
    browser.press("Enter in the register", "button")
    browser.sees("Entered in the register")
    assert urllib.parse.urlsplit(browser.driver.current_url).path == "/drums/MQ-099"
    assert installation.cluster.rows(
        "select name, round(depth_m::numeric, 4) from register_drum where tag = 'MQ-099'"
    ) == [["Grebe", "0.1651"]]
