"""From a scene's light, over a film's own curves, to its negative and its print."""
