"""The work itself, as data: each procedure is one readable file, gathered in the catalogue."""
