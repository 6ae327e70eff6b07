"""New heads."""
