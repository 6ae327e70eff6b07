"""The computation and rules of drum work, free of any screen, database or clock."""
