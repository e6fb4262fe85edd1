"""The catalogue with the shop's own rows, tools and prices; what is looked up in it."""
