"""What a test comes to: finding, pushes, schools, comparisons, the next step."""
