"""The question a new test answers."""
