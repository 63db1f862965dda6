"""The few kinds of widget that every station is made of."""
