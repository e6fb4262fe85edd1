"""Shape in space: bends, centreline, corner points, views; clips along it, what it passes."""
