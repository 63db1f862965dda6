"""Everything typed is parsed here, once."""
