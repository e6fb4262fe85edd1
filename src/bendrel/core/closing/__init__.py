"""Closing, proving and signing off a whole line: its joints, the steps, what was done, what is in the way."""
