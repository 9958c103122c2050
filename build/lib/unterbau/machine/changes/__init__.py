"""What one adds to a kind of machine, or leaves out: braces, panels, weights."""
