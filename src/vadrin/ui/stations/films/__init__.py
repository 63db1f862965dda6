"""Films: everything that was decided on, beside one reference."""
