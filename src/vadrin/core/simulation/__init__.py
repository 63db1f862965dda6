"""Made-up films that answer as real ones do."""
