"""Results in words, made once for every view, card and file."""
