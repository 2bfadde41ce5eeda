"""Reading and showing cooks’ amounts, and ranges."""
