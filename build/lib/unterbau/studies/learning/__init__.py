"""The built machine teaches the model."""
