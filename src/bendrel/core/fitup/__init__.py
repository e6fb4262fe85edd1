"""Where the finished part lands against its port, how often, and what brings it home."""
