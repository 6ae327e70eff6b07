"""What devices send, made from the core's entries: one definition there, its schema here."""

from __future__ import annotations

import dataclasses
import types
from collections.abc import Callable
from enum import Enum
from functools import cache, reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from ninja import Schema
from pydantic import Field, ValidationError, WrapValidator, create_model

from drumwork.work.kinds.clear import MOST_PARTIALS, Move
from drumwork.work.kinds.registry import ENTRIES
from drumwork.work.log import Between, Entry, WordCount
from drumwork.work.rounds import Partial

__all__ = ["MOST_PARTIALS", "BodyIn", "MoveIn", "PartialIn", "UnknownBody", "body_of"]


class UnknownBody(Schema):
    """A kind of entry this server does not know: a newer device sent it. Refused with a reason, and kept there."""

    kind: str


def _wired(hint: Any) -> Any:
    """A core annotation as pydantic has it: bounds as fields, tuples as lists, small classes as schemas."""
    origin, of = get_origin(hint), get_args(hint)
    if origin is Annotated:
        marks = [_mark(each) for each in of[1:]]
        return Annotated[(_wired(of[0]), *marks)]
    if origin is tuple:
        return list[_wired(of[0])]  # type: ignore[misc]
    if origin in (Union, types.UnionType):
        return reduce(or_, [_wired(each) for each in of])
    if dataclasses.is_dataclass(hint) and isinstance(hint, type) and not issubclass(hint, Enum):
        return _schema(hint)
    return hint


def _mark(mark: Any) -> Any:
    match mark:
        case Between(least, most):
            return Field(ge=least, le=most)
        case WordCount(fewest, most):
            return Field(min_length=fewest, max_length=most)
        case _:
            return mark


@cache
def _schema(of: type) -> type[Schema]:
    """A core class as a schema named after it, without what is found by whoever takes it in."""
    hints = get_type_hints(of, include_extras=True)
    sent = [each for each in dataclasses.fields(of) if not each.metadata.get("found")]
    fields: dict[str, Any] = {
        each.name: (_wired(hints[each.name]), ... if each.default is dataclasses.MISSING else _plain(each.default))
        for each in sent
    }
    if issubclass(of, Entry):
        fields = {"kind": (Literal[of.kind], ...), **fields}
    made: type[Schema] = create_model(f"{of.__name__}In", __base__=Schema, __doc__=of.__doc__, **fields)
    return made


def _plain(default: Any) -> Any:
    return list(default) if isinstance(default, tuple) else default


def _known_or_not(value: Any, validate: Callable[[Any], Any]) -> Any:
    try:
        return validate(value)
    except ValidationError as error:
        if error.errors()[0]["type"] == "union_tag_invalid":
            return UnknownBody(kind=str(value["kind"])[:60])
        raise


if TYPE_CHECKING:

    class BodyIn(Schema):
        kind: str

    class MoveIn(Schema):
        rod: int
        real: int

    class PartialIn(Schema):
        hz: float
        level_db: float
else:
    _UNION = Annotated[reduce(or_, [_schema(entry) for entry in ENTRIES]), Field(discriminator="kind")]
    BodyIn = Annotated[_UNION, WrapValidator(_known_or_not)]
    MoveIn = _schema(Move)
    PartialIn = _schema(Partial)

_SENT = {
    entry: tuple(each.name for each in dataclasses.fields(entry) if not each.metadata.get("found"))
    for entry in ENTRIES
}  # fmt: skip


def body_of(entry: Entry, stored: dict[str, Any]) -> dict[str, Any]:
    """The stored body with only what devices send and fold."""
    return {"kind": entry.kind, **{name: stored[name] for name in _SENT[type(entry)]}}
