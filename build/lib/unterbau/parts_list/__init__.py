"""The list of parts: what, how much, how heavy, how dear."""
