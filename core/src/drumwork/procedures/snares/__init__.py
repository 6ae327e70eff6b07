"""Snare wires."""
