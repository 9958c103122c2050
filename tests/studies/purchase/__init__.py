"""Checks before buying, against hand sums and handbook forms."""
