"""Lines of a job that are joined: what flows where, what it costs, what falls back to rest."""
