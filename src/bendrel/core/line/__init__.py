"""A line as the person records it, and the shape that its readings mean."""
