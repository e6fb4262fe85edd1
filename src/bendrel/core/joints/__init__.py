"""What meets: faces, what follows from two of them, how far one goes into the other; the pieces."""
