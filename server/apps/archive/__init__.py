"""A workshop's whole record as one open file, out and in again, and as tables (docs/formats/archive.md)."""
