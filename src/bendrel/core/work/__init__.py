"""The work on a line, step by step: what it takes, making, closing, proving, signing off."""
