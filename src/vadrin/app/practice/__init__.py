"""Practice: a film nobody knows, and the truth in an envelope."""
