"""What eyes and prints told of a test where nothing was measured: its EI by verdicts."""
