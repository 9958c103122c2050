"""Unterbau: see which part of a home-built machine will flex, before buying it."""

__version__ = "0.1.0"
