"""Simulated stand-ins for outside devices, such as a densitometer."""
