"""Long sums: apart in processes of their own, or behind."""
