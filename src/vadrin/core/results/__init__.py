"""What a test comes to: finding, pushes, methods, comparisons, the next step."""
