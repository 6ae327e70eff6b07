"""Kinds of drum and their two sides: one table of what each kind has and lacks."""

from drumwork.drums.traits import TRAITS, DrumKind, Side, Traits, traits_of

__all__ = ["TRAITS", "DrumKind", "Side", "Traits", "traits_of"]
