"""Planning a test: its sentences, its script on the camera there is, its forecast."""
