"""What the tests of a notebook tell of the next film."""
