"""Tables of readings in and out."""
