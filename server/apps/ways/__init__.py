"""The workshop’s own ways over HTTP, and making a workshop."""
