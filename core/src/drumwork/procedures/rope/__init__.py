"""Rope-tension concert bass drums."""
