"""Long work on worker threads."""
