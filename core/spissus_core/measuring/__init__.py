"""Pans, and finding out how much is in them."""
