"""Pictures of film, read as values: bounded, whole or not at all."""
