"""Pictures of a scene on a test's film, drawn."""
