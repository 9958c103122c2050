"""What pages of HTML are made of: each holds everything itself, and keeps to what simple readers of HTML know."""

import base64
from html import escape

from unterbau.band import Band
from unterbau.units import number_text

ASSUMPTIONS = """\
Predictions for one place of the head, pulled at the tool tip against the work, static and linear: no play, slip or
gaps. Low and high: nine of ten machines lie between, every joint, guide, drive and material drawn on its own.
Beams bend, twist, shear and stretch (Timoshenko), hollow ones go out of shape and dent; plates are finite elements
(shells); welds are rigid; masses by the same parts. Joint, guide and spindle values are largely common practice
without a source.
An estimate with a band, not a promise. Lifting, wiring, welding and pouring follow local codes and licensed practice.
"""
STYLE = """\
body { font-family: Inter, sans-serif; font-size: 8pt; color: #222a29; max-width: 190mm; }
h1 { font-size: 14pt; margin: 0; } h2 { font-size: 9pt; color: #62675f; margin: 7px 0 2px 0; }
h3 { font-size: 9pt; margin: 8px 0 1px 0; }
td, th { font-size: 8pt; padding: 1px 7px 1px 0; text-align: left; vertical-align: top; }
th { color: #62675f; font-weight: normal; } p { margin: 2px 0; }
.small { font-size: 7pt; color: #62675f; }
"""


def page(title: str, body: str) -> str:
    """Return a whole page."""
    return f"""<!DOCTYPE html>
<html lang="en"><head><meta charset="utf-8"><title>{escape(title)}</title>
<style>
{STYLE}</style></head><body>
{body}
</body></html>
"""


def image(png: bytes, width: int, words: str) -> str:
    """Return a picture that the page holds itself, or nothing."""
    if not png:
        return ""
    data = base64.b64encode(png).decode("ascii")
    return f'<img src="data:image/png;base64,{data}" width="{width}" alt="{escape(words)}">'


def row(*cells: str, head: bool = False) -> str:
    """Return a row of a table."""
    tag = "th" if head else "td"
    return "<tr>" + "".join(f"<{tag}>{cell}</{tag}>" for cell in cells) + "</tr>"


def band_words(band: Band, scale: float = 1.0) -> str:
    """Return a band as likely (low – high), the smaller end first."""
    low, high = band.ends
    return f"<b>{number_text(band.likely * scale)}</b> ({number_text(low * scale)} – {number_text(high * scale)})"
