"""What each strip got in the darkroom."""
