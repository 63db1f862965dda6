"""The notebook: every record of a tester's work in one SQLite file."""
