"""What lies in the rack, and what is cut from it."""
