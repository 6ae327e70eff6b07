"""Which tables are followed, and why the others are not."""

from __future__ import annotations

from typing import Final, NamedTuple

__all__ = ["FOLLOWED", "NOT_FOLLOWED", "Followed"]


class Followed(NamedTuple):
    """`words`: what a row is to people. `about`: columns that name it. `but`: columns that say nothing to anybody, or are kept elsewhere."""

    what: str
    words: str
    about: str
    but: str = "id,workshop_id"


FOLLOWED: Final = {
    "workshops_workshop": Followed("workshop", "the workshop and its ways", "name", "id,slug"),
    "workshops_membership": Followed("person", "person", "shown_name", "id,workshop_id,keeps_sound,joined_at"),
    "people_link": Followed(
        "link", "invitation or link", "shown_name,kind", "id,workshop_id,digest,user_id,made_by_id,password_digest"
    ),
    "register_drum": Followed("drum", "drum", "tag,name", "id,workshop_id,search,kept"),
    "register_kitdrum": Followed("kit-drum", "drum of a kit", "drum_id,kit_id"),
    "register_place": Followed("place", "place", "name"),
    "register_owner": Followed("owner", "owner of drums", "name"),
    "register_kit": Followed("kit", "kit", "name"),
    "heads_fitting": Followed("fitting", "what is on a drum", "drum_id,side"),
    "heads_headline": Followed("head-line", "line of heads", "name"),
    "heads_wireline": Followed("wire-line", "line of wires", "name"),
    "heads_stockitem": Followed(
        "stock", "line of the Shelf", "name,line_id,wires_id,diameter_m", "id,workshop_id,count"
    ),
    "heads_shelfthing": Followed("thing", "tool or material", "name"),
    "followups_followup": Followed("check", "check", "drum_id,side"),
    "planned_plannedjob": Followed("planned", "planned work", "drum_id,work"),
}

NOT_FOLLOWED: Final = {
    "a log of its own, which says who and when and is never edited": {
        "bench_jobevent", "inspecting_walkevent", "callouts_calloutevent", "history_logentry", "history_pitchrecord", "stock_movement", "inspecting_overrule", "hearing_heardtap",
    },
    "made from such a log": {
        "bench_job", "bench_jobhead", "bench_drumfinding", "bench_keptanswer", "inspecting_walk", "inspecting_walkdrum", "callouts_callout", "callouts_calloutdrum", "inspecting_verdict", "stock_heap",
    },
    "says who and when itself": {"heads_promise", "stock_goesback", "stock_loan", "stock_barenote", "stock_shelfcode", "photos_photo", "copies_copy"},
    "how a file is read, no record": {"bringing_readso"},
    "the audit trail": {"audit_change"},
}  # fmt: skip
