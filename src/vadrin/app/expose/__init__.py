"""While the film is in the camera, and entering afterwards what was shot."""
