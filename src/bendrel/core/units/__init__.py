"""Shop lengths, angles, planes and other figures: what a person types, and back."""
