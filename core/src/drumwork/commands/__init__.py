"""Verbs of `bin/drumwork`: each reads words or JSON at the edge and asks the core."""
