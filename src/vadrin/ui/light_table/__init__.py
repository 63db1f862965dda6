"""The light table: the strips of the test on the bench, as film."""
