"""What the shop has and how it works: the catalogue as typed rows, its tools, its preferences."""
