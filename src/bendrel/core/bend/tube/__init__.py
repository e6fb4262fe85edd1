"""One rigid piece, planned: ends, cut, marks, shown working."""
