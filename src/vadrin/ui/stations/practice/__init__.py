"""Practice: a film nobody knows, what its tester commits to, and the envelope."""
