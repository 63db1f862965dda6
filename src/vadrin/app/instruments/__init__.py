"""Instruments on lines: what each says, and what is done with it, whatever page is shown."""
