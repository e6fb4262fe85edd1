"""Making a part fit its ports: the plan mended on the way, fit rounds, tweaks, and how often it will fit."""
