"""The judging bench of clearing: drums of other models than the engine's, and what several rules make of them."""
