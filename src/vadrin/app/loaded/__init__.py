"""Tests as whole frozen data, and what is known of one without its answer."""
