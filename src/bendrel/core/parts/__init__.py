"""What a part is, and what is said of it: verdicts by service, seats, pairs of metals, components, stripped ports."""
