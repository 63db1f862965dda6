"""Reports: JSON, cards, scripts and labels."""
