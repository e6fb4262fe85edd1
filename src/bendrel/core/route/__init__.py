"""Where the line runs on the machine, and how it gets there."""
