"""Which tables an archive holds, under which names, and which it does not."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cache
from typing import Any, Final

from django.contrib.auth.models import User
from django.db.models import Field, ForeignKey, Model

from apps.bench.models import DrumFinding, Job, JobEvent, JobHead, KeptAnswer
from apps.bringing.models import ReadSo
from apps.callouts.models import CallOut, CallOutDrum, CallOutEvent
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, HeadLine, Promise, ShelfThing, StockItem, WireLine
from apps.hearing.models import HeardTap
from apps.history.models import LogEntry, PitchRecord
from apps.inspecting.models import Overrule, Verdict, Walk, WalkDrum, WalkEvent
from apps.photos.models import Photo
from apps.planned.models import PlannedJob
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.stock.models import BareNote, GoesBack, Heap, Loan, Movement, ShelfCode
from apps.workshops.models import Workshop

__all__ = [
    "FORMAT",
    "LATER",
    "LATER_SETTINGS",
    "LATER_TABLES",
    "LEFT_OUT",
    "SETTINGS",
    "TABLES",
    "VERSION",
    "columns",
    "name_of",
]

FORMAT: Final = "red-tally-archive"
VERSION: Final = 1

TABLES: Final[Mapping[str, type[Model]]] = {
    "places": Place,
    "owners": Owner,
    "kits": Kit,
    "drums": Drum,
    "drums_of_kits": KitDrum,
    "head_lines": HeadLine,
    "wire_lines": WireLine,
    "stock": StockItem,
    "heaps": Heap,
    "movements": Movement,
    "shelf_codes": ShelfCode,
    "bare_notes": BareNote,
    "going_back": GoesBack,
    "loans": Loan,
    "promises": Promise,
    "tools_and_materials": ShelfThing,
    "fittings": Fitting,
    "jobs": Job,
    "heads_of_jobs": JobHead,
    "entries_of_jobs": JobEvent,
    "findings": DrumFinding,
    "answers_of_drums": KeptAnswer,
    "taps": HeardTap,
    "checks": FollowUp,
    "planned_work": PlannedJob,
    "walks": Walk,
    "drums_of_walks": WalkDrum,
    "entries_of_walks": WalkEvent,
    "verdicts": Verdict,
    "overrules": Overrule,
    "callouts": CallOut,
    "drums_of_callouts": CallOutDrum,
    "entries_of_callouts": CallOutEvent,
    "history": LogEntry,
    "pitches": PitchRecord,
    "photos": Photo,
    "sheets_read": ReadSo,
}

LATER: Final[Mapping[str, frozenset[str]]] = {
    "kits": frozenset({"occasion", "at", "day", "wish"}),
    "drums_of_kits": frozenset({"role", "row"}),
    "loans": frozenset({"from_side", "from_rod", "to_side", "to_rod"}),
    "taps": frozenset({"second_hz", "second_chance"}),
    "pitches": frozenset({"left_so"}),
}
"""Columns that came after the first archives of this version: one without them is read too, and they are as in a fresh row."""

LATER_SETTINGS: Final = frozenset(
    {"callout_plays", "callout_stands", "callout_rods", "callout_sounds", "callout_noise", "callout_beside"}
)
"""Ways that came after: they are as in a fresh workshop."""

LATER_TABLES: Final = frozenset({"callouts", "drums_of_callouts", "entries_of_callouts"})
"""Tables that came after them: an archive without one has no rows of it."""

LEFT_OUT: Final = {
    "people and how they sign in belong to the installation": {"workshops.Membership", "people.Link"},
    "the trail of changes tells of rows by the numbers they have here; it is written out as a sheet of its own": {
        "audit.Change"
    },
}

SETTINGS: Final = tuple(
    field.name for field in Workshop._meta.concrete_fields if field.name not in {"id", "slug", "demo"}
)
"""What a workshop is beside its rows: its name and its ways."""

_OURS: Final = {"workshop", "search"}
"""Columns that are no record: whose the row is, and what searching goes by, which is made anew."""


@cache
def columns(model: type[Model]) -> Sequence[Field[Any, Any]]:
    """What is written of a row. Who did something is there by name; accounts are not."""
    return [
        field
        for field in model._meta.concrete_fields
        if field.name not in _OURS and not (isinstance(field, ForeignKey) and field.related_model is User)
    ]


def name_of(model: type[Model]) -> str:
    return next(name for name, each in TABLES.items() if each is model)
