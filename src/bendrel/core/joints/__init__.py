"""What a connection is: the faces that meet, what follows from it, how far one goes into the other."""
