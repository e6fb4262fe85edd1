"""What is printed: sheets, records, labels, tape, jigs."""
