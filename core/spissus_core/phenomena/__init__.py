"""One physical law a module."""
