"""From readings to curves: the model of development, its fit, and how sure that is."""
