"""Records of the notebook as frozen data."""
