"""Archives compared: what they say, whatever numbers their rows happen to have."""

from __future__ import annotations

import io
import json
import re
import uuid
from typing import Any

from django.contrib.auth.models import User
from django.db.models import AutoField, ForeignKey

from apps.archive.reading import Taken, take
from apps.archive.tables import TABLES, columns, name_of
from apps.archive.writing import archive
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop

UUID = re.compile(r"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}")


def written(workshop: Workshop) -> str:
    enter_workshop(workshop.pk)
    return "".join(archive(Workshop.objects.get(pk=workshop.pk)))


def empty_workshop(name: str) -> Membership:
    workshop = Workshop.objects.create(name=name, slug=name.lower())
    enter_workshop(workshop.pk)
    user = User.objects.create(username=f"owner-{name}".lower())
    return Membership.objects.create(user=user, workshop=workshop, role="owner", shown_name="Owner")


def taken(text: str, by: Membership) -> Taken:
    enter_workshop(by.workshop_id)
    return take(io.BytesIO(text.encode()), len(text), by)


def told(text: str, as_in: Workshop | None = None) -> Any:
    """What an archive says: rows are named by their place in their table; with `as_in`, every UUID by what it becomes in that workshop."""
    if as_in:
        space = uuid.uuid5(uuid.NAMESPACE_OID, f"red-tally-workshop-{as_in.pk}")
        text = UUID.sub(lambda found: str(uuid.uuid5(space, found[0])), text)
    whole = json.loads(text)
    del whole["made_at"], whole["workshop"]["name"]
    for rows in whole["tables"].values():
        rows.sort(key=lambda row: row["id"])
    numbers = {name: {row["id"]: place for place, row in enumerate(rows)} for name, rows in whole["tables"].items()}
    for name, rows in whole["tables"].items():
        for field in columns(TABLES[name]):
            of = TABLES[name] if isinstance(field, AutoField) else field.related_model if isinstance(field, ForeignKey) else None  # fmt: skip
            if of is None or not isinstance(of._meta.pk, AutoField):
                continue
            for row in rows:
                row[field.name] = None if row[field.name] is None else numbers[name_of(of)][row[field.name]]
    return whole
