"""A fault of ours while something was computed."""

import traceback


def told(error: Exception) -> str:
    """Return what the window says of it; whose call it was goes to standard error."""
    traceback.print_exception(error)
    return f"this could not be computed ({type(error).__name__}: {error})"
