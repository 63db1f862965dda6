"""A test's answer as pictures: a scene of known light through its own curves and a paper."""
