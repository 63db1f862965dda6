"""What can be wrong with readings and settings, said in plain words."""
