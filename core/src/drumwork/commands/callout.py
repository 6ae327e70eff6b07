"""`drumwork callout`: the order that helps most in the minutes there are. JSON on standard input, JSON out (docs/callout.md)."""

from __future__ import annotations

import argparse
from typing import Any, Final

from drumwork.callout import Planned, Task, plan_callout
from drumwork.callout.order import MOST_TASKS
from drumwork.commands.requests import Fields, answer_each, plain, request

__all__ = ["add"]

_LONG: Final = 1e5
"""Minutes; more than two months."""
_MUCH: Final = 1e6


def add(parser: argparse.ArgumentParser) -> None:
    parser.set_defaults(run=_run)


def _task(said: Fields) -> Task:
    return Task(
        said.text("id"),
        said.number("minutes", 0, _LONG),
        said.number("worth", -_MUCH, _MUCH),
        tuple(dict.fromkeys(said.texts("after", MOST_TASKS))),
        tuple(said.texts("uses", 100)),
    )


def plan_of(asked: Any) -> Planned:
    """The plan a request asks for.

    Raises
    ------
    BadRequest
        naming the field that is missing or of the wrong kind.
    """
    said = Fields(asked)
    shelf = said.object("parts")
    parts = {name: shelf.whole(name, 0, 10**6) for name in shelf.value}
    return plan_callout(
        said.number("minutes", 0, _LONG), [_task(each) for each in said.objects("tasks", MOST_TASKS)], parts
    )


def _told(found: Planned) -> dict[str, Any]:
    return {
        "order": list(found.order),
        "worth": plain(found.worth),
        "bound": plain(found.bound),
        "proved": found.proved,
        "spare_minutes": plain(found.spare_minutes),
    }


def _run(args: argparse.Namespace) -> None:
    answer_each(request(), lambda asked: _told(plan_of(asked)))
