"""One rigid piece, planned: ends, cut, marks and moves, steps, shown working."""
