"""A shop begins: the first workshop by its word, somebody invited, made an owner, removed; a passkey, codes, two workshops; the demo sent away."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pyotp
import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.common.virtual_authenticator import VirtualAuthenticatorOptions

from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation

PASSWORD = "low-tide-by-noon"


@pytest.fixture(scope="module")
def fresh() -> Iterator[Installation]:
    """One nobody has begun; with the demo in it, as a plain `./start` leaves it."""
    with Installation("people", workers=1) as made:
        yield made


@pytest.fixture
def petra(fresh: Installation) -> Iterator[Browser]:
    browser = Browser(fresh.named_url)
    yield browser
    browser.close()


@pytest.fixture
def kit(fresh: Installation) -> Iterator[Browser]:
    browser = Browser(fresh.named_url)
    yield browser
    browser.close()


def come_in(browser: Browser, username: str, password: str = PASSWORD) -> None:
    browser.go("/")
    browser.write("Name", username)
    browser.write("Password", password)
    browser.press("Sign in", "button")


def begun(fresh: Installation, workshop: str, username: str) -> None:
    """A workshop of somebody's own, by the command."""
    fresh.server.env["RT_NEW_PASSWORD"] = PASSWORD
    fresh.server.manage("add_workshop", workshop, "--user", username, "--shown", username.title())


def made_link(browser: Browser) -> str:
    return browser.until("the link", lambda: browser.one("input[aria-label='The link']").get_attribute("value")) or ""


def menu(browser: Browser, item: str) -> None:
    who = "nav[aria-label=Views] > button"
    # A press can come while the page is still settling, and open nothing: then it is pressed again, as a person would.
    browser.until("the menu", lambda: browser.all("[role=menuitem]") or (browser.click(browser.one(who)) and False))
    browser.press(item, "[role=menuitem]")


def test_a_shop_begins_and_people_come_and_go(fresh: Installation, petra: Browser, kit: Browser) -> None:
    word = fresh.server.printed("first_word")
    petra.go("/")
    petra.press("Begin a workshop of your own")
    petra.write("The word", "nope-nope-nope-nope")
    petra.write("Name of the workshop", "Drying Loft")
    petra.write("Your name", "Petra Lind")
    petra.write("Name to sign in", "petra")
    petra.write("Password", PASSWORD)
    petra.press("Begin", "button[type=submit]")
    petra.sees("Not the word. 9 more tries.")
    petra.write("The word", word.upper())
    petra.press("Begin", "button[type=submit]")
    petra.sees("This book is new.")
    assert fresh.server.printed("first_word") == ""

    menu(petra, "People")
    petra.write("Who (they may change it)", "Kit Rowe")
    petra.press("Make the link")
    link = made_link(petra)
    kit.driver.get(link)
    kit.sees("Petra Lind invites you to Drying Loft, as a technician.")
    kit.write("Name to sign in", "Petra")
    kit.write("Password", PASSWORD)
    kit.press("Come in", "button[type=submit]")
    kit.sees("Taken; choose another.")
    kit.write("Name to sign in", "kit")
    kit.press("Come in", "button[type=submit]")
    kit.sees("This book is new.")
    kit.driver.get(link)
    kit.driver.refresh()
    kit.sees("This link was used already.")

    petra.driver.refresh()
    petra.sees("came in")
    petra.click(petra.one("button[aria-label='Change Kit Rowe']"))
    petra.press("owner", "[role=radio], label")
    petra.press("Keep this")
    petra.sees("owner, last in")
    kit.go("/people")
    kit.sees("Who works here")
    kit.click(kit.one("button[aria-label='Change Petra Lind']"))
    kit.press("technician", "label")
    kit.press("Keep this")
    kit.until("Petra to be a technician", lambda: "technician, last in" in kit.text())
    kit.click(kit.one("button[aria-label='Change Kit Rowe']"))
    kit.press("Leave this workshop")
    kit.press("Yes, I leave")
    kit.sees("A workshop needs an owner.")
    kit.click(kit.one("button[aria-label='Change Petra Lind']"))
    kit.press("New password by link")
    reset = made_link(kit)

    petra.driver.get(reset)
    petra.sees("A new password for petra")
    petra.write("New password", "another-tide-77")
    petra.write("New password once more", "another-tide-77")
    petra.press("Set it")
    petra.press("Sign in with it")
    come_in(petra, "petra", "another-tide-77")
    petra.one("nav[aria-label=Views]")
    kit.press("Remove")
    kit.press("Yes, remove Petra Lind")
    kit.until(
        "Petra to be gone", lambda: "Petra Lind" not in "".join(kit.words("section[aria-label='Who works here']"))
    )
    petra.driver.refresh()
    come_in(petra, "petra", "another-tide-77")
    petra.sees("You work in no workshop here any more.")

    kit.press("Who changed what", "main header a")
    told = kit.until("what was done", lambda: [each for each in kit.words("main li") if "person, removed" in each])
    assert "Petra Lind" in told[0]
    assert told[0].endswith("Kit Rowe")
    owned = next(each for each in kit.words("main li") if "technician → owner" in each)
    assert owned.endswith("Petra Lind")


def test_a_passkey_signs_in_alone_and_codes_are_asked_for(fresh: Installation, kit: Browser) -> None:
    come_in(kit, "kit")
    kit.one("nav[aria-label=Views]")
    kit.go("/you")
    options = VirtualAuthenticatorOptions(
        protocol=VirtualAuthenticatorOptions.Protocol.CTAP2, transport=VirtualAuthenticatorOptions.Transport.INTERNAL,
        has_resident_key=True, has_user_verification=True, is_user_verified=True,
    )  # fmt: skip
    kit.driver.add_virtual_authenticator(options)
    kit.write("What to call this device", "bench tablet")
    kit.one("section[aria-label=Passkeys] input[type=password]").send_keys(PASSWORD)
    kit.press("Add a passkey")
    kit.until("the key to be kept", lambda: "bench tablet" in "".join(kit.words("section[aria-label=Passkeys] li")))

    kit.one("section[aria-label=Codes] input[type=password]").send_keys(PASSWORD)
    kit.press("Set up codes")
    kit.one("svg[aria-label='Square code for the app']")
    secret = "".join(kit.one("section[aria-label=Codes] code").text.split())
    totp = pyotp.TOTP(secret)
    kit.write("The code it shows now", totp.now())
    kit.press("Turn codes on")
    kit.sees("Codes are on.")
    spare = kit.words("section[aria-label=Codes] [role=status] li")
    assert len(spare) == 8

    menu(kit, "Sign out")
    kit.press("Sign in with a passkey")
    kit.one("nav[aria-label=Views]")
    menu(kit, "Sign out")
    kit.write("Name", "kit")
    kit.write("Password", PASSWORD)
    kit.press("Sign in", "button[type=submit]")
    kit.sees("The second step")
    kit.write("Code", "000000")
    kit.press("Go on", "button")
    kit.sees("Not the code, or no longer.")
    kit.write("Code", spare[0])
    kit.keys(Keys.ENTER)
    kit.one("nav[aria-label=Views]")
    kit.go("/you")
    kit.sees("On; 7 spare codes left.")
    kit.one("section[aria-label=Codes] input[type=password]").send_keys(PASSWORD)
    kit.press("Turn codes off")
    kit.sees("Off. With it")


def test_two_workshops_of_one_person_and_a_page_that_shows_the_other(fresh: Installation, kit: Browser) -> None:
    come_in(kit, "kit")
    kit.one("nav[aria-label=Views]")
    kit.go("/people")
    kit.write("Begin another workshop", "River Loft")
    kit.press("Begin", "section[aria-label='The workshop'] button")
    kit.sees("This book is new.")
    kit.go("/drums/new")
    first = kit.driver.current_window_handle
    kit.driver.switch_to.new_window("tab")
    kit.go("/")
    kit.one("nav[aria-label=Views]")
    menu(kit, "Go to Drying Loft")
    kit.until(
        "the other workshop",
        lambda: (
            kit.script("return fetch('/api/session').then(a => a.json()).then(s => s.workshop.name)") == "Drying Loft"
        ),
    )
    kit.driver.switch_to.window(first)
    # What this page still shows is the other workshop: nothing of it lands in the wrong one.
    told = kit.script(
        "return fetch('/api/today', {headers: {'X-Workshop': arguments[0]}}).then(a => a.json())",
        kit.script(
            "return fetch('/api/session').then(a => a.json()).then(s => String(s.workshops.find(w => w.name === 'River Loft').id))"
        ),
    )
    assert told["code"] == "other_workshop"
    kit.driver.refresh()
    menu(kit, "Go to River Loft")
    kit.sees("This book is new.")


def test_a_whole_record_comes_into_an_empty_workshop_and_goes_out_again(fresh: Installation, kit: Browser) -> None:
    """The documented example; the demo's record goes out and in in server/tests/test_demo.py."""
    whole = ROOT / "docs" / "formats" / "archive.example.json"
    begun(fresh, "Estuary", "nell")
    come_in(kit, "nell")
    kit.sees("This book is new.")
    menu(kit, "People")
    kit.sees("Everything as one file")
    kit.driver.find_element("css selector", "input[aria-label=Archive]").send_keys(str(whole))
    kit.sees("It is in: 1 drum, 1 entry of their history, 1 line of the Shelf")
    out = kit.script("return fetch('/api/archive/archive.json').then((answer) => answer.json())")
    assert [drum["tag"] for drum in out["tables"]["drums"]] == ["RT-2"]
    kit.go("/drums/RT-2")
    kit.sees("lug 5 squeaks")
    kit.go("/people")
    kit.sees("Everything as one file")
    kit.driver.find_element("css selector", "input[aria-label=Archive]").send_keys(str(whole))
    kit.sees("This workshop has records already.")
    assert kit.console_errors() == []


def test_the_demo_is_sent_away_and_a_start_does_not_bring_it_back(fresh: Installation, kit: Browser) -> None:
    names = "select name from workshops_workshop where not demo order by name"
    begun(fresh, "Slipway", "tam")
    others = fresh.cluster.rows(names)
    come_in(kit, "tam")
    kit.one("nav[aria-label=Views]")
    kit.go("/people")
    kit.press("Remove the demo")
    kit.press("Yes, remove the demo")
    kit.until("it to be gone", lambda: "The demo workshop" not in kit.text())
    assert fresh.cluster.rows("select name from workshops_workshop order by name") == others
    fresh.server.manage("load_demo", "--unasked", "--verbosity", "0")
    assert fresh.cluster.rows("select count(*) from workshops_workshop where demo") == [["0"]]
    menu(kit, "Sign out")
    kit.sees("Sign in")
    assert "Demo accounts" not in kit.text()
    assert re.fullmatch(r"/reset#[\w-]{32}", fresh.server.printed("password_link", "tam"))
