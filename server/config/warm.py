"""What is loaded late and takes long, done before serving: the addresses with all of the core, and one plan of each kind of work."""

from __future__ import annotations

from importlib import import_module

from django.urls import get_resolver

__all__ = ["warm_up"]

LATE = (
    "scipy.optimize",
    "scipy.signal",
    "scipy.linalg",
    "scipy.stats",
    "drumwork.listening",
    "drumwork.rods.clearing",
    "ortools.sat.python.cp_model",
    "soundfile",
    "PIL.Image",
)


def warm_up() -> None:
    """Touches no database: the processes that serve connect for themselves."""
    for name in LATE:
        import_module(name)
    _ = get_resolver().url_patterns
    import_module("config.pages")
