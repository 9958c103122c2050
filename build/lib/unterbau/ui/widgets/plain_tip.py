"""Hints are words: what a name holds is never taken as markup."""

from html import escape


def plain_tip(text: str) -> str:
    """Return a hint that shows a text as it is written."""
    return f"<span>{escape(text)}</span>".replace("\n", "<br>") if "<" in text else text
