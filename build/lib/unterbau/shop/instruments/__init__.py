"""What instruments say: readings with their units, as lines of text."""
