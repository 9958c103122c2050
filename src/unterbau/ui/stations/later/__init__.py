"""Stations that are not built yet say what will be here."""
