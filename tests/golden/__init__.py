"""What was recorded once, and what was made of it: read back for ever, by every later version."""
