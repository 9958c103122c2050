"""The six stations in working order."""
