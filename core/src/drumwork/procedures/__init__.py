"""Procedures: the order of the work, and the count of what has been done of it."""
