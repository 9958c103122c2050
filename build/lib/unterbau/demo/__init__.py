"""Shipped demo projects, invented for the purpose."""
