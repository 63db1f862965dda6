"""The demo notebook: a volunteer darkroom qualifies its film for a winter."""
