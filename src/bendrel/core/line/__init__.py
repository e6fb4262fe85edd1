"""A line as the person records it, the shape that its readings mean, and its changes."""
