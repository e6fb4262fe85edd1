"""What a part is, and what is said of it: verdicts by service, seats, pairs, components, stripped ports."""
