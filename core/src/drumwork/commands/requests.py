"""Requests in JSON on standard input, answers in JSON on standard output, for the commands that judge and choose."""

from __future__ import annotations

import json
import math
import sys
from collections.abc import Callable, Mapping, Sequence
from typing import Any, Final

from drumwork.commands.edges import read_json
from drumwork.errors import BadRequest

__all__ = ["Fields", "answer", "answer_each", "plain", "request"]

_MOST: Final = 4_000_000
"""Characters of a request; what is longer is no request for one drum, kit or call-out."""


def request() -> Any:
    """What stands on standard input.

    Raises
    ------
    BadRequest
        for what is no JSON, or too much of it.
    """
    text = sys.stdin.read(_MOST + 1)
    if len(text) > _MOST:
        raise BadRequest(f"A request has up to {_MOST} characters.")
    if not text.strip():
        raise BadRequest("Give the request as JSON on standard input.")
    try:
        return read_json(text)
    except json.JSONDecodeError as error:
        raise BadRequest(f"The request is no JSON: {error.msg}, line {error.lineno}.") from None


def answer(what: Any) -> None:
    print(json.dumps(what, ensure_ascii=False))


def answer_each(asked: Any, one: Callable[[Any], Any]) -> None:
    """A list of requests gets a list of answers, in order; one request gets its answer."""
    answer([one(each) for each in asked] if isinstance(asked, list) else one(asked))


def plain(value: float) -> float | int:
    """A whole number as one: 12, not 12.0."""
    return int(value) if value == int(value) else value


class Fields:
    """One object of a request; what is missing or of the wrong kind is said by its name."""

    def __init__(self, value: Any, name: str = "the request") -> None:
        if not isinstance(value, Mapping):
            raise BadRequest(f"{name}: give an object.", field=name)
        self.value, self.name = value, name

    def _path(self, key: str) -> str:
        return key if self.name == "the request" else f"{self.name}.{key}"

    def has(self, key: str) -> bool:
        return self.value.get(key) is not None

    def object(self, key: str) -> Fields:
        return Fields(self.value.get(key, {}) if self.value.get(key) is not None else {}, self._path(key))

    def text(self, key: str, default: str | None = None, most: int = 200) -> str:
        value = self.value.get(key)
        if value is None and default is not None:
            return default
        if not isinstance(value, str) or len(value) > most or "\x00" in value:
            raise BadRequest(f"{self._path(key)}: give a text of up to {most} characters.", field=key)
        return value

    def one_of(self, key: str, among: Sequence[str], default: str | None = None) -> str:
        value = self.text(key, default)
        if value not in among:
            raise BadRequest(
                f"{self._path(key)}: “{value}” is not known. Choose one of: {', '.join(among)}.", field=key
            )
        return value

    def number(self, key: str, low: float, high: float, default: float | None = None) -> float:
        value = self.value.get(key)
        if value is None and default is not None:
            return default
        if (
            isinstance(value, bool)
            or not isinstance(value, int | float)
            or math.isnan(value)
            or not low <= value <= high
        ):
            raise BadRequest(f"{self._path(key)}: give a number from {low:g} to {high:g}.", field=key)
        return value

    def maybe_number(self, key: str, low: float, high: float) -> float | None:
        return self.number(key, low, high) if self.has(key) else None

    def whole(self, key: str, low: int, high: int, default: int | None = None) -> int:
        value = self.number(key, low, high, default)
        if value != int(value):
            raise BadRequest(f"{self._path(key)}: give a whole number.", field=key)
        return int(value)

    def flag(self, key: str, default: bool = False) -> bool:
        value = self.value.get(key, default)
        if not isinstance(value, bool):
            raise BadRequest(f"{self._path(key)}: say true or false.", field=key)
        return value

    def items(self, key: str, most: int = 500) -> list[Any]:
        value = self.value.get(key)
        if value is None:
            return []
        if not isinstance(value, list) or len(value) > most:
            raise BadRequest(f"{self._path(key)}: give a list of up to {most}.", field=key)
        return value

    def objects(self, key: str, most: int = 500) -> list[Fields]:
        return [Fields(each, f"{self._path(key)}[{n}]") for n, each in enumerate(self.items(key, most))]

    def texts(self, key: str, most: int = 500) -> list[str]:
        found = self.items(key, most)
        for n, each in enumerate(found):
            if not isinstance(each, str):
                raise BadRequest(f"{self._path(key)}[{n}]: give a text.", field=key)
        return found
