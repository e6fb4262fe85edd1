"""The shape of a hose between two ends: still or moving, and the lengths that keep its radius."""
