"""Simulated devices that stand in for the real ones on a bench without them."""
