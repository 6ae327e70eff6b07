"""Every view, on a desk and on a phone, in both themes: accessible by axe-core, nothing cut off, no console errors, nothing from outside, roles respected."""

from __future__ import annotations

import re
import urllib.parse

import pytest

from e2e.pages.bench import start_check
from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation
from e2e.support.measures import COLOURS, EVERYTHING, cut_off, faults, show_theme, sideways


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
        name, _, rest = path.removeprefix("kit ").partition("/")
        return f"/kits/{next(each['id'] for each in kits if each['name'] == name)}{rest and f'/{rest}'}"
    if path == "line":
        lines = browser.script("return fetch('/api/shelf').then(r => r.json())")["lines"]
        return f"/shelf/{lines[0]['id']}"
    if path.startswith("call "):
        name, _, at = path.removeprefix("call ").partition("?")
        calls = browser.script("return fetch('/api/callouts').then(r => r.json())")
        return f"/callouts/{next(each['id'] for each in calls if each['name'] == name)}?{at}"
    return path if path.startswith("/") else job(browser, path)


# Every route of the app by its path in the router, with views of it: where it is, and words that show that it is there.
VIEWS: dict[str, list[tuple[str, str]]] = {
    "/": [("/", "owed")],
    "bench": [("/bench", "in hand")],
    "bench/:job": [
        ("Heron", "next rod"),
        ("Kittiwake", "in this order"),
        ("Dunlin", "tap at rod"),
        ("Plover", "Clean the edge"),
        ("Drifter", "Resting"),
    ],
    "callouts": [("/callouts", "what first?")],
    "callouts/:callout": [
        ("call loan kit?at=bag", "Start the clock"),
        ("call loan kit?at=walk", "Sounds fine"),
        ("call loan kit?at=plan", "The whole plan"),
        ("call circus studio?at=note", "Thank you for having it there"),
    ],
    "changes": [("/changes", "who changed what")],
    "drums": [("/drums", "Cormorant")],
    "drums/:tag": [("/drums/MQ-041", "History"), ("/drums/MQ-071", "rope"), ("/drums/MQ-081", "Moorhen")],
    "drums/:tag/choose": [("/drums/MQ-033/choose", "Used for")],
    "drums/:tag/edit": [("/drums/MQ-041/edit", "Which drum")],
    "drums/:tag/sound": [("/drums/MQ-041/sound", "Because")],
    "drums/:tag/start": [
        ("/drums/MQ-035/start?work=new-batter-head&part=batter", "Order of the rods"),
        ("/drums/MQ-001/start?work=settling-check&part=batter", "Order of the rods"),
    ],
    "drums/bring": [("/drums/bring", "Bring drums in")],
    "drums/new": [("/drums/new", "Which drum")],
    "inspect": [("/inspect", "Not over yet")],
    "inspect/:walk": [("walk?at=MQ-007", "Nothing found"), ("walk?at=MQ-026", "Decide otherwise")],
    "inspect/:walk/sum": [("walk/sum", "To buy")],
    "inspect/lives": [("/inspect/lives", "Likely within")],
    "inspect/rules": [("/inspect/rules", "Common practice")],
    "kits": [("/kits", "pageant barge")],
    "kits/:kit": [("kit pit kit", "Notes keep apart")],
    "kits/:kit/edit": [("kit pit kit/edit", "pit kit")],
    "kits/new": [("/kits/new", "Add a drum")],
    "names": [("/names", "Places")],
    "people": [("/people", "People")],
    "shelf": [("/shelf", "can start")],
    "shelf/:line": [("line", "What happened")],
    "shelf/buying": [("/shelf/buying", "To buy")],
    "shelf/count": [("/shelf/count", "Count")],
    "shelf/lent": [("/shelf/lent", "Lend a part")],
    "shelf/new": [("/shelf/new", "A new line")],
    "shelf/sheet": [("/shelf/sheet", "sheet")],
    "ways": [("/ways", "ways")],
    "you": [("/you", "Your sign-in")],
    "*": [("/nowhere", "Nothing here")],
}
ELSEWHERE = {"bench/:job/taps", "/join", "/reset"}
"""Walked below, or where nobody is signed in."""
ROUTE = re.compile(r"path: '([^']+)'")


def routes() -> set[str]:
    """As the router has them."""
    return {"/"} | set(ROUTE.findall((ROOT / "web" / "src" / "app" / "routes.tsx").read_text(encoding="utf-8")))


def test_every_route_is_walked() -> None:
    assert routes() == set(VIEWS) | ELSEWHERE


def measured(browser: Browser) -> list[str]:
    """What is wrong with the view in sight: at a desk in the Bench theme, then on a phone in the Stage theme."""
    found = []
    for (wide, high), theme, of in (((1280, 800), "bench", EVERYTHING), ((390, 844), "stage", COLOURS)):
        browser.size(wide, high)
        show_theme(browser, theme)
        found += [f"{wide}: {each}" for each in (*faults(browser, of), *cut_off(browser), *sideways(browser))]
    browser.size(1280, 800)
    show_theme(browser, "bench")
    return found


def test_every_view_is_clean_and_whole(browser: Browser) -> None:
    still(browser)  # no colour is half way to another
    browser.go("/")
    browser.sees("Demo accounts")
    found = {"sign-in": measured(browser)}
    for path, words in (("/join", "invitation"), ("/reset", "password")):
        browser.go(path)
        browser.sees(words)
        found[path] = measured(browser)
    browser.sign_in("ines")
    for path, words in (each for views in VIEWS.values() for each in views):
        browser.go(address(browser, path))
        browser.sees(words)
        found[path] = measured(browser)
    heard = f"/bench/{start_check(browser, 'MQ-005', sign_in=False).job}"
    browser.press("Simulated drum")
    browser.sees("Work out the turns", seconds=30)
    found["everything heard"] = measured(browser)
    browser.go(f"{heard}/taps")
    browser.sees("One after the other")
    found["taps"] = measured(browser)
    browser.script("document.activeElement.blur()")
    browser.keys("?")
    browser.sees("page-turn pedal")
    found["keys"] = measured(browser)
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
    browser.sees("140? A rack tom is usually")
    browser.press("It is so")
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
