"""What lines carry: density, viscosity, what it harms, and how it flows."""
