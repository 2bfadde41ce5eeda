"""From what a cook says, in a line, a sentence or a list, to the strained liquid."""
