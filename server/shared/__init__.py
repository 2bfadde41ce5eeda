"""What every app is made of: shapes of answers, refusals, limits and prepared queries."""
