"""Plans of tests: kinds, layout on film, and what a plan will tell."""
