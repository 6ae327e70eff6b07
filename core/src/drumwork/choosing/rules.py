"""Rules of choosing as data: what is excluded and why (`X…`), what the trade holds by (C1–C10), what a need or a use asks.

Common practice with no published source throughout; `cites` names the trade notes. A rule that weighs adds `weight` to every specification
it speaks for and says so; one that speaks against has a weight below nought.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final

from drumwork.choosing.specs import Spec
from drumwork.choosing.wanted import Wanted
from drumwork.drums import DrumKind

__all__ = ["EXCLUSIONS", "RULES", "Rule", "WEIGHED"]

When = Callable[[Wanted], bool]
Of = Callable[[Spec], bool]


@dataclass(frozen=True, slots=True)
class Rule:
    """For whom (`when`), of which heads (`of`), and the sentence. `weight` is None for an exclusion."""

    id: str
    when: When
    of: Of
    words: str
    weight: float | None = None
    cites: tuple[str, ...] = ("§10",)


_ROPE, _MESH, _BASS = DrumKind.ROPE_BASS, DrumKind.PRACTICE_MESH, DrumKind.BASS
_SNARES = (DrumKind.SNARE, DrumKind.ORCHESTRAL_SNARE, DrumKind.MARCHING_SNARE)


def _one(spec: Spec) -> bool:
    return spec.plies == 1 and not spec.mesh


def _two(spec: Spec) -> bool:
    return spec.plies == 2 and not spec.mesh


def _mesh_is_wrong(asked: Wanted) -> bool:
    return asked.kind is not _MESH and (
        not asked.quiet_practice or asked.wants("loud", "open", "long") or asked.snare_side
    )


def _brushes(asked: Wanted) -> bool:
    return asked.batter and asked.serves("brushes") and asked.kind is not _MESH


def _lit(asked: Wanted) -> bool:
    return asked.batter and asked.serves("stage-light") and asked.kind is not _MESH


EXCLUSIONS: Final = (
    Rule("X-snare-side", lambda asked: not asked.snare_side, lambda spec: spec.snare_side, "A snare-side film is far too thin to be played on, or to stand on any side but the wires’.", cites=("C3", "F:wrong-head")),
    Rule("X-thick-snare-side", lambda asked: asked.snare_side, lambda spec: not spec.snare_side, "On the snare side only thin clear film lets the wires answer.", cites=("C3", "F:wrong-head")),
    Rule("X-mesh", _mesh_is_wrong, lambda spec: spec.mesh, "Mesh gives no drum sound: it is for quiet practice.", cites=("C7",)),
    Rule("X-film-on-mesh", lambda asked: asked.kind is _MESH, lambda spec: not spec.mesh, "A practice drum for mesh stays quiet only with mesh.", cites=("C7",)),
    Rule("X-brushes", _brushes, lambda spec: spec.finish not in ("coated", "suede", "fibre") or spec.mesh, "Brushes need a rough coat to sound on.", cites=("§10",)),
    Rule("X-stage-light", _lit, lambda spec: spec.finish in ("clear", "smooth-white", "ebony"), "A shiny film throws the stage light back; a coat hides the glare.", cites=("§10",)),
    Rule("X-batter-below", lambda asked: not asked.batter and asked.kind not in (_ROPE, _MESH), lambda spec: _two(spec), "A two-ply batter does not answer as a resonant head: it chokes the drum.", cites=("F:wrong-head", "§7")),
    Rule("X-struck-damping-below", lambda asked: not asked.batter, lambda spec: spec.damping in ("dot", "foam"), "A dot or foam is for the side that is struck.", cites=("§9",)),
    Rule("X-thin-pull", lambda asked: asked.batter and asked.kind in (DrumKind.MARCHING_SNARE, DrumKind.MARCHING_BASS, _BASS, _ROPE), lambda spec: not spec.mesh and not spec.snare_side and (spec.mil or 0) < 10, "Too thin for this pull and these beaters: it would not last.", cites=("§18",)),
    Rule("X-foam-elsewhere", lambda asked: asked.batter and asked.kind is not _BASS, lambda spec: spec.damping == "foam", "Adjustable foam is made for bass drum batters.", cites=("§10",)),
    Rule("X-orchestral", lambda asked: asked.batter and asked.kind is DrumKind.ORCHESTRAL_SNARE, lambda spec: _two(spec) or spec.damping != "none", "Cable and gut answer only a thin, open head.", cites=("C2", "§4")),
    Rule("X-rope", lambda asked: asked.kind is _ROPE, lambda spec: spec.damping != "none" or spec.vent or spec.mesh, "A concert bass on rope is muffled by hand, not by its head.", cites=("§14", "§9")),
)  # fmt: skip


def _c1(asked: Wanted) -> bool:
    return (
        asked.batter
        and asked.kind is DrumKind.SNARE
        and (asked.use == "school" or (asked.use == "drum-set" and not asked.sound))
    )


def _thuddy(asked: Wanted) -> bool:
    return (
        asked.batter
        and asked.kind is DrumKind.FLOOR_TOM
        and asked.wants("low", "short", "dry", "punchy")
        and not asked.wants("long", "open")
    )


def _singing(asked: Wanted) -> bool:
    return asked.batter and asked.kind is DrumKind.FLOOR_TOM and asked.wants("long", "open")


def _shallow_tom(asked: Wanted) -> bool:
    return asked.batter and asked.tom and asked.shallow


def _rock(asked: Wanted) -> bool:
    return (
        asked.batter
        and asked.kind is _BASS
        and asked.use in ("drum-set", "school", "recording")
        and not asked.wants("open", "long")
    )


def _marching_low(asked: Wanted) -> bool:
    return (
        asked.batter
        and asked.kind is DrumKind.MARCHING_BASS
        and asked.wants("articulate", "low", "short", "punchy", "dry")
    )


def _marching_high(asked: Wanted) -> bool:
    return asked.batter and asked.kind is DrumKind.MARCHING_BASS and asked.wants("high", "long", "open", "bright")


WEIGHED: Final = (
    Rule("C1", _c1, lambda spec: _one(spec) and spec.finish == "coated" and spec.damping == "none" and not spec.vent and spec.mil == 10, "The all-rounder for a snare batter: one-ply coated.", 4, ("C1",)),
    Rule("C2", lambda asked: asked.batter and asked.kind in _SNARES and (asked.use == "concert" or asked.kind is DrumKind.ORCHESTRAL_SNARE), lambda spec: (spec.mil or 99) < 10 and spec.finish in ("coated", "fibre"), "Concert and orchestra: a thinner or darker coated head.", 4, ("C2",)),
    Rule("C2-darker", lambda asked: asked.batter and asked.kind in _SNARES and asked.use == "concert", lambda spec: _one(spec) and spec.finish in ("fibre", "suede", "coated") and spec.damping == "none", "A darker coat suits a hall.", 1.5, ("C2",)),
    Rule("C3", lambda asked: asked.snare_side, lambda spec: spec.mil == 3, "Snare side: thin clear snare-side film.", 4, ("C3", "F4")),
    Rule("C3-thinner", lambda asked: asked.snare_side and (asked.use == "concert" or asked.kind is DrumKind.ORCHESTRAL_SNARE or asked.wants("sensitive")), lambda spec: spec.mil == 2, "A thinner film still lets soft playing through.", 3, ("C3",)),
    Rule("C3-sturdy", lambda asked: asked.snare_side and (asked.kind is DrumKind.MARCHING_SNARE or asked.use == "marching" or asked.serves("lasting")), lambda spec: spec.mil == 5, "High tension and rough handling ask for a sturdier snare-side film.", 3, ("C3", "§4")),
    Rule("C4-thud", _thuddy, lambda spec: _two(spec) and spec.finish == "coated", "Low, short and thuddy on a floor tom: two-ply coated.", 4, ("C4",)),
    Rule("C4-sing", _singing, lambda spec: _one(spec) and spec.damping == "none", "Long and singing on a floor tom: one-ply.", 4, ("C4",)),
    Rule("C5", _rock, lambda spec: spec.damping in ("edge-ring", "foam"), "Bass drum of a set: a pre-damped batter with its ring, and a ported front.", 4, ("C5",)),
    Rule("C5-large", lambda asked: _rock(asked) and (asked.diameter_in or 0) >= 22, lambda spec: spec.damping == "edge-ring" and _two(spec), "A large drum wants the thick ring.", 1.5, ("C5",)),
    Rule("C6-high", _marching_high, lambda spec: _one(spec) and spec.damping == "none", "Marching bass: one-ply is resonant and higher.", 4, ("C6",)),
    Rule("C6-low", _marching_low, lambda spec: _two(spec), "Marching bass: two-ply is articulate and lower.", 4, ("C6",)),
    Rule("C6-smooth", lambda asked: asked.batter and asked.kind is DrumKind.MARCHING_BASS and (asked.wants("loud", "bright") or not asked.sound), lambda spec: spec.finish == "smooth-white", "A smooth finish projects.", 2, ("C6",)),
    Rule("C6-fibre", lambda asked: asked.batter and asked.kind is DrumKind.MARCHING_BASS and asked.wants("warm", "dark"), lambda spec: spec.finish == "fibre", "A fibre finish warms.", 3, ("C6",)),
    Rule("C6-foam", lambda asked: asked.batter and asked.kind is DrumKind.MARCHING_BASS, lambda spec: spec.damping == "none", "Plain heads need foam inside the drum; put it in before the head.", 0, ("C6", "§4")),
    Rule("C7", lambda asked: asked.quiet_practice or asked.kind is _MESH, lambda spec: spec.mesh, "Practice at night: mesh, with quiet wires off.", 8, ("C7",)),
    Rule("C8-follow", lambda asked: _shallow_tom(asked) and asked.wants("punchy", "dry", "short", "low"), lambda spec: _two(spec) and spec.damping != "none", "A shallow shell is punchy by itself: follow it with a pre-damped two-ply.", 2, ("C8",)),
    Rule("C8-open", lambda asked: _shallow_tom(asked) and (asked.wants("open", "long", "warm", "bright") or not asked.sound), lambda spec: spec.finish == "coated" and spec.damping == "none" and not spec.vent, "A shallow shell is punchy by itself: open it up with a coated head without damping.", 2, ("C8",)),
    Rule("need-brushes", _brushes, lambda spec: spec.finish == "coated", "A coat for the brushes.", 1.5),
    Rule("need-light", _lit, lambda spec: spec.finish == "coated", "Its coat hides the glare of stage light.", 1.5),
    Rule("need-lasting", lambda asked: asked.serves("lasting"), lambda spec: spec.tends["life"] > 0.7, "It lasts longer than most.", 2.5),
    Rule("need-lasting-thin", lambda asked: asked.serves("lasting") and asked.batter, lambda spec: spec.tends["life"] < 0, "It will not last as long as asked.", -2.5),
    Rule("need-cheap", lambda asked: asked.budget == "low", lambda spec: spec.cost == 0, "Among the cheapest there are.", 3),
    Rule("need-cheap-not", lambda asked: asked.budget == "low", lambda spec: spec.cost > 1, "It costs more than most.", -3),
    Rule("need-quiet", lambda asked: asked.serves("quiet") and not asked.snare_side, lambda spec: spec.tends["loud"] < 0.2, "It is quieter than most.", 2.5),
    Rule("use-marching", lambda asked: asked.batter and (asked.use == "marching" or asked.kind is DrumKind.MARCHING_SNARE), lambda spec: spec.tends["life"] > 0.4, "Marching asks for a head that stands high tension and hard use.", 2, ("§4",)),
    Rule("use-recording", lambda asked: asked.batter and asked.use == "recording", lambda spec: spec.finish in ("coated", "fibre", "suede"), "A coat takes the edge off near a microphone.", 1.5),
    Rule("use-concert", lambda asked: asked.batter and asked.use == "concert" and asked.kind not in _SNARES, lambda spec: _one(spec) and spec.damping == "none" and spec.finish in ("coated", "fibre", "suede"), "A concert drum sings without built-in damping.", 2),
    Rule("use-school", lambda asked: asked.batter and asked.use == "school" and asked.kind is not DrumKind.SNARE, lambda spec: spec.tends["life"] >= 0 and spec.finish == "coated", "School drums are hit by many hands: a sturdy coated head.", 2),
    Rule("usual-tom", lambda asked: asked.batter and asked.tom and asked.use == "drum-set", lambda spec: (_two(spec) and spec.finish in ("clear", "coated") and spec.damping == "none") or (_one(spec) and spec.finish == "coated" and spec.mil == 10), "A usual head for a tom.", 1),
    Rule("usual-snare", lambda asked: asked.batter and asked.kind in _SNARES, lambda spec: spec.finish == "coated", "A usual finish for a snare batter.", 1),
    Rule("usual-open-bass", lambda asked: asked.batter and asked.kind is _BASS and asked.wants("open", "long"), lambda spec: _one(spec) and spec.finish == "coated" and spec.damping == "none", "An open bass drum: one-ply coated, muffled by hand if at all.", 1),
    Rule("usual-below", lambda asked: not asked.batter and asked.tom, lambda spec: _one(spec) and spec.mil == 10 and spec.finish == "clear" and spec.damping == "none", "A usual resonant head for a tom: one-ply clear.", 2.5),
    Rule("thin-below", lambda asked: not asked.batter and asked.tom, lambda spec: spec.mil == 7.5 and spec.finish == "clear", "A thinner resonant head answers sooner.", 0.8),
    Rule("usual-front", lambda asked: not asked.batter and asked.kind in (_BASS, DrumKind.MARCHING_BASS), lambda spec: _one(spec) and spec.mil == 10 and spec.finish in ("smooth-white", "ebony", "coated"), "A usual front head: one-ply.", 2),
    Rule("front-ring", lambda asked: not asked.batter and asked.kind is _BASS and asked.wants("punchy", "dry", "short", "low"), lambda spec: spec.damping == "edge-ring", "A ring at the edge calms the front, and a port lets the air out.", 3, ("C5", "§9")),
    Rule("usual-rope", lambda asked: asked.kind is _ROPE, lambda spec: spec.finish in ("fibre", "coated", "suede"), "A warm finish suits a concert bass.", 2, ("§14",)),
    Rule("vent", lambda asked: not asked.wants("dry"), lambda spec: spec.vent, "A vented edge is for a dry sound.", -2),
    Rule("thin-batter", lambda asked: asked.batter and asked.kind not in (DrumKind.ORCHESTRAL_SNARE,) and asked.use != "concert" and not asked.wants("sensitive", "high"), lambda spec: not spec.mesh and (spec.mil or 99) < 10, "Thin for hard playing.", -2, ("§10",)),
)  # fmt: skip

RULES: Final[Mapping[str, Rule]] = {each.id: each for each in (*EXCLUSIONS, *WEIGHED)}
