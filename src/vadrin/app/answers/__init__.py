"""What each kind of test answers that asks for something else than an EI and a time."""
