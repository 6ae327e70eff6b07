"""Kinds of step, a module each: what such a step holds, how it begins, its entries, and where it stands in words.

A new kind is registered in `steps.py` (what it holds) and `registry.py` (how it behaves).
"""
