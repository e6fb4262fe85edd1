"""One rigid tube: the tool, the plan, the part as told and read, the bench, making it fit."""
