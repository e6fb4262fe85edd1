"""Rules on what a line is asked to carry: its service, the pressure and heat typed, its strength."""
