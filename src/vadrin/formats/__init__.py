"""Open files in and out."""
