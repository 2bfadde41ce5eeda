"""What can go into a pot: ingredients, a kitchen’s own, and the schools of thickening."""
