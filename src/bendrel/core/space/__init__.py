"""Where the line stands: its spans one behind the other, its hoses as they lie, what holds them."""
