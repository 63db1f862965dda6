"""The finding so far, beside the station or folded to a line."""
