"""Core dataclasses as schemas of the wire: one definition in the core, its schema from there."""

from __future__ import annotations

import dataclasses
import types
from collections.abc import Callable, Iterable
from enum import Enum
from functools import cache, reduce
from operator import or_
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from ninja import Schema
from pydantic import Field, ValidationError, WrapValidator, create_model

from drumwork.work.log import Between, WordCount

__all__ = ["UnknownBody", "schema_of", "sent_fields", "union_of"]


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
        return schema_of(hint)
    return hint


def _mark(mark: Any) -> Any:
    match mark:
        case Between(least, most):
            return Field(ge=least, le=most)
        case WordCount(fewest, most):
            return Field(min_length=fewest, max_length=most)
        case _:
            return mark


def sent_fields(of: type) -> tuple[str, ...]:
    """The fields a device sends: all but what is found by whoever takes the entry in."""
    return tuple(each.name for each in dataclasses.fields(of) if not each.metadata.get("found"))


@cache
def schema_of(of: type) -> type[Schema]:
    """A core class as a schema named after it; an entry, which has a `kind`, is told apart by it."""
    hints = get_type_hints(of, include_extras=True)
    sent = sent_fields(of)
    fields: dict[str, Any] = {
        each.name: (_wired(hints[each.name]), ... if each.default is dataclasses.MISSING else _plain(each.default))
        for each in dataclasses.fields(of)
        if each.name in sent
    }
    if kind := getattr(of, "kind", None):
        fields = {"kind": (Literal[kind], ...), **fields}
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


def union_of(entries: Iterable[type]) -> Any:
    """All entries of a log as one type; a kind nobody knows here becomes `UnknownBody`."""
    schemas: list[Any] = [schema_of(entry) for entry in entries]
    union: Any = Annotated[reduce(or_, schemas), Field(discriminator="kind")]
    return Annotated[union, WrapValidator(_known_or_not)]
