"""Changes of a line as a whole: its chain, its values by pointer, one tube turned, parted or mirrored."""
