"""The Brief station."""
