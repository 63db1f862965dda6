"""What was decided: the finding written down, what it rests on, and the card it gives."""
