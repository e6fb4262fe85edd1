"""A part as it came out: what was told and read of it, weighed into what is known of it."""
