"""What a catalogue row is, what is said of it, and what goes on what; the kit holds them all."""
