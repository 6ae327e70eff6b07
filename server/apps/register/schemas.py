"""Drums in and out. Sizes and pitches are typed as text and read by the core, so every unit a person uses is understood."""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

from ninja import Schema
from pydantic import BaseModel, Field

from apps.register.models import Drum
from apps.workshops.errors import Refused
from apps.workshops.models import Workshop
from apps.workshops.typed import Line, Name, Tag, Text
from drumwork.drums import TRAITS, DrumKind
from drumwork.errors import DrumworkError
from drumwork.quantities import Length, parse_length, parse_pitch

StateName = Literal["in", "out", "repair", "retired"]
Rods = Annotated[list[Annotated[int, Field(ge=1, le=16)]], Field(max_length=16)]
SAME_SIZE_M = 0.003
"""Sizes are nominal; a quarter inch apart is another size."""
HOURS_IN_A_WEEK = 168
KIND_WORDS = {kind.value: traits.words for kind, traits in TRAITS.items()}


class DrumIn(BaseModel):
    """A drum as a person fills it in. Empty text means not known. Plain: thousands are read from a list at once."""

    tag: Tag = Field(max_length=20)
    name: Name = Field(max_length=60)
    kind: DrumKind
    diameter: Name = Field(max_length=20)
    depth: Name = Field(max_length=20)
    shell: Line = Field("", max_length=60)
    rods_batter: int = Field(ge=0, le=16)
    rods_resonant: int = Field(ge=0, le=16)
    lost_batter: Rods = []
    lost_resonant: Rods = []
    bed_rods: Rods = []
    port_rods: Rods = []
    thread: Line = Field("", max_length=20)
    hoops: Line = Field("", max_length=20)
    snare_bed: bool = False
    badge: Literal["between", "at-rod", "none"] = "between"
    port: Line = Field("", max_length=20)
    wanted_batter: Line = Field("", max_length=20)
    wanted_resonant: Line = Field("", max_length=20)
    place: Name = Field(max_length=80)
    owner: Name = Field(max_length=80)
    kits: list[Annotated[Name, Field(max_length=80)]] = Field(default=[], max_length=40)
    state: StateName = "in"
    hours_week: Line = Field("", max_length=10)
    """How many hours a week it is played, about; empty where nobody knows."""
    note: Text = Field("", max_length=2000)


class DrumEdit(DrumIn):
    """`seen` is the form as it was when the person began to change it, so that what others changed meanwhile is neither lost nor undone."""

    seen: dict[str, Any] | None = None


class DrumRow(Schema):
    tag: str
    name: str
    kind: str
    kind_words: str
    size: str
    rods: str
    place: str
    owner: str
    kits: list[str]
    state: str
    standing: str
    owed: bool


class DrumPage(Schema):
    total: int
    drums: list[DrumRow]


class Choices(Schema):
    """What the register's filters and the drum form offer."""

    places: list[str]
    owners: list[str]
    kits: list[str]
    threads: list[str]
    hoops: list[str]
    kinds: dict[str, str]
    next_tag: str


_SAME_M: Final = 5e-5


def length_words(metres: float, unit: str) -> str:
    """A drum's length as this workshop says it, without the unit: '14', '5 1/2', '356'."""
    if unit == "mm":
        return f"{Length(metres).mm:.0f}"
    eighths = round(Length(metres).inches * 8)
    whole, rest = divmod(eighths, 8)
    parts = {1: "1/8", 2: "1/4", 3: "3/8", 4: "1/2", 5: "5/8", 6: "3/4", 7: "7/8"}
    return f"{whole} {parts[rest]}" if rest else str(whole)


def length_in_form(metres: float, unit: str) -> str:
    """A length as it is filled in, so that read again it is the same to a twentieth of a millimetre: '14', and '330 mm' in a workshop of inches."""
    words = length_words(metres, unit)
    if abs(parse_length(words, unit).metres - metres) < _SAME_M:
        return words
    return f"{round(Length(metres).mm, 1):g}{'' if unit == 'mm' else ' mm'}"


def length_typed(metres: float, unit: str) -> str:
    """The same with its unit."""
    words = length_in_form(metres, unit)
    return words if words.endswith("mm") else f"{words} {unit}"


def size_words(diameter_m: float, depth_m: float, unit: str) -> str:
    return f"{length_words(diameter_m, unit)} × {length_words(depth_m, unit)} {unit}"


def rods_words(kind: str, batter: int, resonant: int) -> str:
    if not TRAITS[DrumKind(kind)].rods:
        return "rope"
    return f"{batter}" if batter == resonant else f"{batter}/{resonant}"


def _read(problems: dict[str, str], name: str, read, text: str):  # type: ignore[no-untyped-def]
    """Parse one typed field; a failure is collected under its name."""
    if not text.strip():
        return None
    try:
        return read(text)
    except DrumworkError as error:
        problems[name] = error.message
        return None


def _check_sizes(fields: dict[str, object], problems: dict[str, str]) -> None:
    diameter, depth, port = fields["diameter_m"], fields["depth_m"], fields["port_m"]
    if isinstance(diameter, float) and not 0.1 <= diameter <= 1.6:
        problems["diameter"] = "No drum is that wide. Diameters run from 4 to 63 inches (100 to 1600 mm)."
    if isinstance(depth, float) and not 0.03 <= depth <= 1.5:
        problems["depth"] = "No drum is that deep. Depths run from 1 1/4 to 59 inches (30 to 1500 mm)."
    if isinstance(port, float) and isinstance(diameter, float) and port >= diameter:
        problems["port"] = "The port cannot be as wide as the drum."


def _check_rods(body: DrumIn, problems: dict[str, str]) -> None:
    for name in ("bed_rods", "port_rods"):
        if strange := [rod for rod in getattr(body, name) if not 1 <= rod <= body.rods_resonant]:
            problems[name] = f"There is no rod {strange[0]} on a resonant head of {body.rods_resonant}."
    for side in ("batter", "resonant"):
        count, lost = getattr(body, f"rods_{side}"), getattr(body, f"lost_{side}")
        if TRAITS[body.kind].rods and not 4 <= count <= 16:
            problems[f"rods_{side}"] = "A head has 4 to 16 rods."
        elif strange := [rod for rod in lost if not 1 <= rod <= count]:
            problems[f"lost_{side}"] = f"There is no rod {strange[0]} on a head of {count}."
        elif TRAITS[body.kind].rods and count - len(set(lost)) < 3:
            problems[f"lost_{side}"] = "Fewer than three rods cannot hold a head."


PLAIN = (
    "tag",
    "name",
    "kind",
    "shell",
    "rods_batter",
    "rods_resonant",
    "thread",
    "hoops",
    "snare_bed",
    "badge",
    "state",
    "note",
)
"""Columns that are the same on the form and in the table."""
ROD_LISTS = ("lost_batter", "lost_resonant", "bed_rods", "port_rods")
"""Rods by number; those beside the snare bed and a port are the resonant side's."""


def _hours(text: str, problems: dict[str, str]) -> float | None:
    said = text.strip().replace(",", ".")
    if not said:
        return None
    try:
        hours = float(said)
    except ValueError:
        hours = 0.0
    if not 0 < hours <= HOURS_IN_A_WEEK:
        problems["hours_week"] = "Give hours a week, such as 3 or 0.5, or leave it empty."
        return None
    return hours


def to_fields(body: DrumIn, workshop: Workshop) -> dict[str, object]:
    """Columns of a drum, or Refused naming every field that needs another look."""
    problems: dict[str, str] = {}

    def metres(text: str) -> float:
        return parse_length(text, workshop.length_unit).metres

    def hertz(text: str) -> float:
        return parse_pitch(text, workshop.a4_hz).hz

    fields: dict[str, object] = {
        "hours_week": _hours(body.hours_week, problems),
        "diameter_m": _read(problems, "diameter", metres, body.diameter),
        "depth_m": _read(problems, "depth", metres, body.depth),
        "port_m": _read(problems, "port", metres, body.port),
        "wanted_batter_hz": _read(problems, "wanted_batter", hertz, body.wanted_batter),
        "wanted_resonant_hz": _read(problems, "wanted_resonant", hertz, body.wanted_resonant),
    }
    _check_sizes(fields, problems)
    _check_rods(body, problems)
    if problems:
        first = next(iter(problems.values()))
        raise Refused(
            "invalid", first if len(problems) == 1 else f"{len(problems)} entries need another look.", 422, **problems
        )
    for name in PLAIN:
        value = getattr(body, name)
        fields[name] = value.strip() if isinstance(value, str) else value
    return fields | {name: sorted(set(getattr(body, name))) for name in ROD_LISTS}


def shape_form(drum: Drum, unit: str) -> DrumIn:
    """The drum as it was filled in, for editing; as it stands, even where today it would not be taken in so."""
    return DrumIn.model_construct(
        **{name: getattr(drum, name) for name in (*PLAIN, *ROD_LISTS)} | {"kind": DrumKind(drum.kind)},
        diameter=length_in_form(drum.diameter_m, unit),
        depth=length_in_form(drum.depth_m, unit),
        port=length_in_form(drum.port_m, unit) if drum.port_m else "",
        hours_week=f"{drum.hours_week:g}" if drum.hours_week else "",
        wanted_batter=f"{drum.wanted_batter_hz:g}" if drum.wanted_batter_hz else "",
        wanted_resonant=f"{drum.wanted_resonant_hz:g}" if drum.wanted_resonant_hz else "",
        place=drum.place.name,
        owner=drum.owner.name,
        kits=[kit.name for kit in drum.kits.all()],
    )
