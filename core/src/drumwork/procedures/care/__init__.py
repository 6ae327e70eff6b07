"""Looking after heads that stay on."""
