"""Two people changing one drum: what each wrote is put together; where both wrote in one field, both are shown."""

from __future__ import annotations

from typing import Any, Final

from apps.history.models import LogEntry
from apps.register.models import Drum
from apps.register.schemas import DrumEdit, DrumIn
from apps.workshops.errors import Refused

__all__ = ["changes_words", "merged"]

NAMES: Final = {
    "rods_batter": "batter rods", "rods_resonant": "resonant rods", "lost_batter": "missing batter rods", "lost_resonant": "missing resonant rods",
    "bed_rods": "rods beside the snare bed", "port_rods": "rods beside the port", "snare_bed": "snare bed", "wanted_batter": "wanted batter pitch",
    "wanted_resonant": "wanted resonant pitch",
}  # fmt: skip
LONGEST_TEXT: Final = 300


def _said(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return ", ".join(map(str, value)) or "none"
    return str(value) or "nothing"


def merged(body: DrumEdit, stands: DrumIn, drum: Drum) -> DrumIn:
    """What is to be written: the person's own changes, and what others changed meanwhile in other fields.

    Raises
    ------
    Refused
        where both wrote in one field, with what stands there now.
    """
    mine = body.model_dump(mode="json", exclude={"seen"})
    if body.seen is None:
        return DrumIn.model_construct(**mine)
    theirs, both = stands.model_dump(mode="json"), {}
    for name, now in theirs.items():
        before = body.seen.get(name, now)
        if now == before or mine[name] == now:
            continue
        if mine[name] == before:
            mine[name] = now
        else:
            both[name] = f"{_who(drum)} wrote “{_said(now)}” here meanwhile."
    if both:
        message = f"{_who(drum)} changed this drum meanwhile. Look at what is marked, and save again to keep yours."
        raise Refused("edited_meanwhile", message, 409, **both)
    return DrumIn.model_validate(mine)


def _who(drum: Drum) -> str:
    last = LogEntry.objects.filter(drum=drum).exclude(by_name="").values_list("by_name", flat=True).first()
    return last or "Somebody"


def changes_words(before: DrumIn, after: DrumIn) -> tuple[str, dict[str, list[Any]]]:
    """What an edit changed, in words for the history and by field; empty where nothing."""
    old, new = before.model_dump(mode="json"), after.model_dump(mode="json")
    changed = {name: [old[name], new[name]] for name in old if old[name] != new[name]}
    said = "; ".join(
        f"{NAMES.get(name, name)} from “{_said(a)}” to “{_said(b)}”" if name != "note" else "the note"
        for name, (a, b) in changed.items()
    )
    text = f"Changed: {said}"
    return (text if len(text) <= LONGEST_TEXT else f"{text[: LONGEST_TEXT - 1]}…") if changed else "", changed
