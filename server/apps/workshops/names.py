"""A workshop's name, in any script, and what it is called in addresses."""

from __future__ import annotations

import unicodedata
from typing import Final

from django.utils.text import slugify

from apps.workshops.errors import Refused
from apps.workshops.models import Workshop

__all__ = ["fit_name", "make_workshop", "rename_workshop"]

LONGEST: Final = 120


def make_workshop(name: str, **ways: object) -> Workshop:
    """A new workshop. A name that is there already is refused, however it is written: nobody slips into another's shop by its name.

    Raises
    ------
    Refused
        an empty, overlong or taken name.
    """
    name = fit_name(name)
    return Workshop.objects.create(name=name, slug=_free_slug(name), **ways)


def rename_workshop(workshop: Workshop, name: str) -> None:
    """Another name, refused as a new workshop’s is; what it is called in addresses stays."""
    workshop.name = fit_name(name, workshop)
    workshop.save(update_fields=["name"])


def fit_name(name: str, of: Workshop | None = None) -> str:
    """The name as it is kept, for a new workshop or for this one.

    Raises
    ------
    Refused
        an empty, overlong or taken name.
    """
    name = " ".join(unicodedata.normalize("NFC", name).split())
    if not name or not any(each.isalnum() for each in name):
        raise Refused("no_name", "Give the workshop a name with at least one letter or figure.", 422)
    if len(name) > LONGEST:
        raise Refused("name_too_long", f"A workshop’s name has up to {LONGEST} characters.", 422)
    same = _alike(name)
    others = Workshop.objects.exclude(pk=of.pk) if of else Workshop.objects.all()
    if any(_alike(each) == same for each in others.values_list("name", flat=True)):
        raise Refused("name_taken", f"There is a workshop “{name}” already. Choose another name.")
    return name


def _alike(name: str) -> str:
    """Names a reader takes for the same: case, accents' way of writing, width and blanks do not count."""
    return "".join(unicodedata.normalize("NFKC", name).casefold().split())


def _free_slug(name: str) -> str:
    base = slugify(name, allow_unicode=True)[:40] or "workshop"
    taken = set(Workshop.objects.filter(slug__startswith=base).values_list("slug", flat=True))
    return base if base not in taken else next(s for n in range(2, len(taken) + 3) if (s := f"{base}-{n}") not in taken)
