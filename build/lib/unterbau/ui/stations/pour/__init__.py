"""The Pour station."""
