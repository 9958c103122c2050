"""Small controls shared by the stations."""
