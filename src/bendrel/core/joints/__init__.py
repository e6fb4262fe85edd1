"""What goes together: verdicts by service, seats, pairs of metals, parts with a direction, stripped ports."""
