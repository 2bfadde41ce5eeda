"""A kitchen leaves and returns whole: everything of it in one file of an open format, and what is brought in again."""
