"""Constants, one file per source, each with its reference."""
