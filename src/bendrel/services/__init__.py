"""Use cases: load, compute, save. The only place where core and store meet."""
