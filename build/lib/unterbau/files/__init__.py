"""Reading and writing: projects, frames, results."""
