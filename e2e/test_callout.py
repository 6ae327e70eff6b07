"""A call-out on a phone: eight things found, no network in the middle, a rod lent, the note written, the loan given back at the bench."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime

import pytest

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation

PHONE = (390, 844)
DRUMS = ("Tern", "Redshank", "Bittern", "Collier")
SNARE, TOM, FLOOR, BASS = DRUMS


@pytest.fixture
def house_kit(installation: Installation) -> dict[str, str]:
    """Four drums of the demo as the house kit of a hall nobody else plays in; their tags by name."""
    rows = installation.cluster.rows
    tags = {name: rows(f"select tag from register_drum where name = '{name}'")[0][0] for name in DRUMS}
    kit = {"name": "ferry house kit", "at": "Ferry Hall", "drums": [{"tag": tags[name]} for name in DRUMS]}
    Device(installation.server.url).call("POST", "/api/kits", kit)
    return tags


def tick(browser: Browser, words: str, rod: int | None = None) -> None:
    browser.press(words, "button[aria-pressed]")
    if rod is not None:
        browser.press(str(rod), "[aria-label^='Which rod'] button")
    browser.until(
        f"“{words}” to be ticked",
        lambda: any(each.startswith(words) for each in browser.words("button[aria-pressed=true]")),
    )


def at(browser: Browser, name: str) -> None:
    browser.until(f"to stand at {name}", lambda: browser.words("nav button[aria-current=step]")[0].startswith(name))


def title(browser: Browser) -> str:
    return next(iter(browser.words("[aria-label='The one thing now'] h2")), "")


def done(browser: Browser) -> str:
    told = "[aria-label='The one thing now'] :is(.where, h2)"
    before, name = browser.words(told), title(browser)
    browser.press("Done", "footer button")
    browser.until("the next thing", lambda: browser.words(told) != before)
    return name


def test_eight_things_found_before_a_show(
    browser: Browser, installation: Installation, house_kit: dict[str, str]
) -> None:
    rows = installation.cluster.rows

    def stored(kind: str) -> int:
        return int(
            rows(
                "select count(*) from callouts_calloutevent e join callouts_callout c on c.id = e.callout_id"
                f" where c.name = 'ferry house kit' and e.kind = '{kind}'"
            )[0][0]
        )

    browser.sign_in()
    browser.size(*PHONE)
    browser.keys("!")
    browser.sees("what first?")
    browser.until("the kit to be offered", lambda: "ferry house kit" in browser.field("Kit").text)
    browser.field("Kit").send_keys("ferry house kit")
    browser.press("Open it")
    browser.sees("ferry house kit, Ferry Hall")
    assert browser.script("return document.documentElement.dataset.theme") == "stage"
    for part in ("drumstick", "mat or carpet"):
        browser.click(browser.one(f"button[aria-label='One {part} more']"))
        browser.until(
            f"a {part} in the bag", lambda part=part: browser.words(f"[aria-label='{part} in the bag']") == ["1"]
        )  # type: ignore[misc]
    browser.press("Start the clock")

    at(browser, SNARE)
    tick(browser, "rattles")
    browser.press("Next")
    at(browser, TOM)
    tick(browser, "bottom head out of tune")
    tick(browser, "batter out of tune")
    browser.press("Next")
    at(browser, FLOOR)
    browser.until("what was ticked to be stored", lambda: stored("ticked") == 3)

    browser.network(False)
    tick(browser, "rod missing, bottom head", 3)
    tick(browser, "leg missing")
    browser.press("Next")
    at(browser, BASS)
    tick(browser, "slides")
    tick(browser, "batter out of tune")
    browser.press("Next")
    at(browser, "Stands")
    tick(browser, "felt missing")
    browser.press("Walked")
    browser.until("one thing to do", lambda: title(browser) == "Move the pillow first")
    browser.sees("kept on this device")
    assert stored("ticked") == 3

    order = [done(browser) for _ in range(2)]
    browser.driver.refresh()  # the phone was put away, and there is no network yet
    browser.until("the plan again", lambda: title(browser) not in ("", *order))
    while not title(browser).startswith("Lend rod 3"):
        order.append(done(browser))
    browser.sees(f"from {SNARE}’s batter")
    assert browser.all("[aria-label^='The one thing now'] svg[role=img]")
    order.append(done(browser))
    assert "Drumstick in the leg bracket" in order
    assert not [each for each in order if each == "Batter even"]  # a bottom head and its rods before any batter
    browser.press("Note", "nav button")
    browser.sees("Thank you for having it there")
    browser.sees("rod missing at 3 on the bottom head, held for tonight")
    browser.sees("The PDF comes once the network is back")
    browser.press("Now", "nav button")

    browser.network(True)
    browser.until("all of it to be stored, once", lambda: stored("done") == len(order) and stored("ticked") == 8)
    browser.press("the whole plan")
    browser.sees("Felt on the stand")
    browser.sees("no felt in the bag")
    while title(browser) not in ("Nothing more fits", "Nothing to do"):
        order.append(done(browser))
    assert order.index("Bottom head even") < order.index("Batter even")

    browser.click(browser.one("button[title='Change the minutes left']"))
    browser.press("They play: stop here")
    browser.sees("Thank you for having it there")
    browser.sees("rod missing at 3 on the bottom head, held for tonight")
    browser.write("A word of your own to them", "The carpet stays with you.")
    browser.press("Now", "nav button")
    browser.press("Note", "nav button")
    browser.sees("The carpet stays with you.")
    browser.press("The owner has it")
    browser.sees("not answered yet")
    browser.until("it to be reported", lambda: stored("reported") == 1)
    assert browser.console_errors() == []

    snare, floor = house_kit[SNARE], house_kit[FLOOR]
    giver, taker, rod = rows(
        "select g.tag, t.tag, l.from_rod from stock_loan l join register_drum g on g.id = l.from_drum_id"
        " join register_drum t on t.id = l.to_drum_id where l.ended = '' and l.to_rod = 3"
    )[0]
    assert (giver, taker) == (snare, floor)
    browser.go("/")
    browser.until("the bench theme again", lambda: not browser.all("[data-theme=stage]"))
    browser.sees(f"tension rod {rod} lent from {SNARE} to {FLOOR}")
    browser.sees("reported today, and not answered")

    browser.size(1280, 800)
    browser.go(f"/drums/{snare}/start?work=put-back-rod&part=batter")
    browser.press("Start on the bench")
    bench = Bench(browser)
    bench.until_step("Clear")
    count = int(rows(f"select rods_batter - cardinality(lost_batter) from register_drum where tag = '{snare}'")[0][0])
    all_rods = int(rows(f"select rods_batter from register_drum where tag = '{snare}'")[0][0])
    layout = RodLayout(all_rods, frozenset({int(rod)}) if count < all_rods else frozenset())
    bench.clear(SimulatedHead(layout, 300.0, seed=3, uneven=0.004, noise=0.0005))
    bench.until_step("Close")
    bench.go_on()
    browser.until(
        "the loan to be over",
        lambda: rows("select ended from stock_loan where to_rod = 3 and ended <> ''") == [["back"]],
    )
    lost = rows(
        f"select tag, lost_batter, lost_resonant from register_drum where tag in ('{snare}', '{floor}') order by tag"
    )
    assert {row[0]: row[1:] for row in lost} == {snare: ["[]", "[]"], floor: ["[]", "[3]"]}


def test_two_people_at_one_call_out(browser: Browser, installation: Installation) -> None:
    """Two browsers: nobody is sent to what the other has in hand, and what both did without knowing counts once."""
    rows, tag = installation.cluster.rows, Device(installation.server.url)
    tags = [rows(f"select tag from register_drum where name = '{name}'")[0][0] for name in (SNARE, TOM)]
    kit = {"name": "two hands kit", "drums": [{"tag": tag} for tag in tags]}
    made = tag.call("POST", "/api/kits", kit)["id"]
    callout = tag.call("POST", "/api/callouts", {"id": str(uuid.uuid4()), "kit": made, "minutes": 20})["id"]
    found = [{"kind": "ticked", "drum": each, "finding": "rattle", "degree": 2} for each in tags]
    now = datetime.now(UTC).isoformat()
    events = [
        {"id": str(uuid.uuid4()), "device": "script", "seen": 0, "made_at": now, "v": 1, "body": body}
        for body in ({"kind": "clock", "minutes": 20}, *found, {"kind": "ticked", "drum": "", "finding": "felt-missing", "degree": 2}, {"kind": "bagged", "part": "felt", "count": 1})
    ]  # fmt: skip
    tag.call("POST", f"/api/callouts/{callout}/events", {"events": events})

    def stored(kind: str) -> int:
        return int(
            rows(f"select count(*) from callouts_calloutevent where callout_id = '{callout}' and kind = '{kind}'")[0][0]
        )

    def where(one: Browser) -> str:
        return next(iter(one.words("[aria-label='The one thing now'] .where")), "")

    other = Browser(installation.server.url)
    try:
        browser.sign_in()
        other.sign_in("bram")
        for one in (browser, other):
            one.size(*PHONE)
        browser.go(f"/callouts/{callout}?at=plan")
        browser.until("it to be in hand", lambda: title(browser) != "" and stored("took") == 1)
        other.go(f"/callouts/{callout}?at=plan")
        other.until("something else in hand", lambda: title(other) != "" and stored("took") == 2)
        first, second = where(browser), where(other)
        assert first != second

        other.network(False)
        assert done(other).startswith("Press part by part")
        third = where(other)
        assert third not in (second, first)
        assert browser.all("[aria-label='The one thing now'] h2")
        browser.press("the whole plan")
        browser.until("the other's to be theirs", lambda: second in browser.text())
        assert stored("done") == 0
        other.network(True)
        other.until("it to be stored", lambda: stored("done") == 1)

        done(browser)
        browser.until("both to be stored", lambda: stored("done") == 2)
        by = rows(
            f"select by_name from callouts_calloutevent where callout_id = '{callout}' and kind = 'done' order by by_name"
        )
        assert [row[0] for row in by] == ["Bram Oakes", "Ines Calloway"]
        browser.until("nothing the other holds", lambda: where(browser) == "" or where(browser) != third)
        done(other)
        for one in (browser, other):
            one.until("nothing to be left", lambda one=one: title(one) == "Nothing to do")  # type: ignore[misc]
        assert stored("done") == 3
        for one in (browser, other):
            assert one.console_errors() == []
    finally:
        other.close()
