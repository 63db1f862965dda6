"""What the program does, without a screen: the state of the bench and every edit on it."""
