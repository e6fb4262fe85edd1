"""The catalogue: data files with a source on every row, and their typed loader."""
