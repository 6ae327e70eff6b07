"""The register’s pages and the drum sheet: what is asked of many tables at once."""
