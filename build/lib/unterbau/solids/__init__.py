"""Closed bodies of the pieces as they are sawn and bought, wherever the head stands."""
