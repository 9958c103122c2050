"""The Compare station: candidates side by side, and where the flex went."""
