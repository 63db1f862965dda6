"""Cards: of the whole finding, of a push that anyone can follow, of each film compared."""
