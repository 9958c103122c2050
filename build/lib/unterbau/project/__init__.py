"""The document a person works on, and the changes one can make to it."""
