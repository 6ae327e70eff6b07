"""Tension rods: where they sit, in what order they are turned, and how far."""
