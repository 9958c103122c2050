"""The brief."""
