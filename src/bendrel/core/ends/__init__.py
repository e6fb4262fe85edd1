"""The ends of a rigid piece: flares, nuts, the room they need, and the cut length."""
