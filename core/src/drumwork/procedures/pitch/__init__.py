"""Heads that stay on, brought to another state: another pitch, the lowest clean one, uneven on purpose, stretched."""
