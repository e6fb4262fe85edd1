"""What a connection is: the faces that meet, what follows from their meeting, how far one goes into the other."""
