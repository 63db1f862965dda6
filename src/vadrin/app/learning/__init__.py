"""What the tests of a notebook tell of the next one: estimated, and never taken for measured."""
