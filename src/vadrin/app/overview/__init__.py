"""Where a test stands: its steps, what is to be minded, what stands beside its finding."""
