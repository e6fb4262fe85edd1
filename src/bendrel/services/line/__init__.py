"""One line: kept, read from files, measured, its chain, its papers."""
