"""What the notebook has learnt."""
