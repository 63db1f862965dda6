"""How types of test show their answer that have a view of their own: `view` in a file each."""
