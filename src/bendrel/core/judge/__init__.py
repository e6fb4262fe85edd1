"""Every finding: `judged` is the only way to them."""
