"""Listening: from the samples of a tap to the pitch it settles at, how sure that is, and whether it was a tap at all."""

from drumwork.listening.around import Other
from drumwork.listening.choose import Ask, Candidate
from drumwork.listening.context import TapContext, Where, usual_edge_hz
from drumwork.listening.order import Foretold, OrderKind, TapOrder, spot_order
from drumwork.listening.pair import common_pair, round_of, tapped_hz
from drumwork.listening.picture import TapPicture, picture_of
from drumwork.listening.round import HeardRod, merge_taps
from drumwork.listening.split import Cut, split_taps
from drumwork.listening.tap import Status, TapReading, listen_to_tap

__all__ = [
    "Ask",
    "Candidate",
    "common_pair",
    "round_of",
    "Cut",
    "Foretold",
    "HeardRod",
    "OrderKind",
    "Other",
    "Status",
    "TapContext",
    "TapOrder",
    "TapPicture",
    "TapReading",
    "Where",
    "listen_to_tap",
    "merge_taps",
    "picture_of",
    "split_taps",
    "spot_order",
    "tapped_hz",
    "usual_edge_hz",
]
