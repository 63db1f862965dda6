"""The cupboard."""
