"""The engine of the Bench: plans, entries, and where a job stands. It knows no procedure."""
