"""The demo data: the volunteer workshop of a harbour museum."""
