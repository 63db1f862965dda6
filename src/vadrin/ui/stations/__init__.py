"""The stations, one for each step of the work, and the shelf."""
