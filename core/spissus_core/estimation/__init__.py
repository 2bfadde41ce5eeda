"""Volume and rate as readings come in."""
