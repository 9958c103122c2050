"""Cross-sections: shapes by name, their outlines and their properties."""
