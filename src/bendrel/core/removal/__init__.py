"""Taking a line off so that it can go back on, and what is still open when it has."""
