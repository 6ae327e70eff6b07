"""Text as people type it: one line without what no keyboard types, and tags that an address can carry."""

from __future__ import annotations

import re
import unicodedata
from typing import Annotated, Any, Final

from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from pydantic import AfterValidator, Field, StringConstraints
from pydantic_core import PydanticCustomError

from drumwork.procedures.catalogue import CATALOGUE

__all__ = ["Email", "Line", "Name", "Tag", "Text", "WorkName", "printable", "printed"]

_TAG: Final = re.compile(r"^[^\W_][\w .,+()&:–-]*$")


def printable(text: str) -> bool:
    """Whether every character can be stored and shown: no control characters, no halves of characters."""
    return text.isprintable() or all(unicodedata.category(each) not in ("Cc", "Cs") for each in text)


def printed(text: str) -> str:
    """For a file's name: what cannot be shown is left out."""
    return "".join(each for each in text if printable(each)).replace("/", "-")


def _line(text: str) -> str:
    if not printable(text):
        raise PydanticCustomError("not_a_line", "Use one line of plain text.")
    return text


def _email(text: str) -> str:
    try:
        if text:
            validate_email(text)
    except ValidationError:
        raise PydanticCustomError("not_an_email", "Write it as name@place.example, or leave it empty.") from None
    return text


def _text(text: str) -> str:
    if not printable(text.replace("\n", "").replace("\r", "").replace("\t", "")):
        raise PydanticCustomError("not_text", "There is a character in it that cannot be kept.")
    return text


def _tag(text: str) -> str:
    if not _TAG.match(text):
        raise PydanticCustomError(
            "not_a_tag", "A tag begins with a letter or figure; after it blanks and . , + ( ) & : - are taken too."
        )
    return text


_STRIPPED: Any = StringConstraints(strip_whitespace=True)
_FILLED: Any = StringConstraints(strip_whitespace=True, min_length=1)

Line = Annotated[str, _STRIPPED, AfterValidator(_line)]
"""One line, which may be empty."""
Name = Annotated[str, _FILLED, AfterValidator(_line)]
"""One line with something in it."""
Email = Annotated[str, _STRIPPED, AfterValidator(_line), AfterValidator(_email)]
"""An address mail goes to, or empty."""
Text = Annotated[str, AfterValidator(_text)]
"""Lines of text."""
Tag = Annotated[str, _FILLED, AfterValidator(_line), AfterValidator(_tag)]
WorkName = Annotated[str, Field(min_length=1, max_length=40, json_schema_extra={"enum": list(CATALOGUE)})]
"""A piece of work by its id. A closed type on the wire; what is not in the catalogue is refused by the catalogue, in words."""
