"""What is in the pot, by mass."""
