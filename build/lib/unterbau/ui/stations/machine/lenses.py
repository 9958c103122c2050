"""What the machine is looked at through."""

LENSES = ("shape", "flex", "shake", "reach", "clash", "checks", "change", "sizes")
TIPS = {
    "shape": "the machine as built, Alt+S",
    "flex": "the machine pulled by the chosen load, coloured by share, Alt+F",
    "shake": "natural modes, what a tap at the tool brings, how deep a cut may go, Alt+K",
    "reach": "the bed coloured by stiffness or droop over the whole travel, Alt+R",
    "clash": "what collides on the travel, and which screws hide, Alt+C",
    "change": "braces, panels, weights of your own, and pieces left out, Alt+A",
    "checks": "what will not do, before it is bought: screws, motors, guides, feet, Alt+H",
    "sizes": "travel, heights, overhangs and stances, to be dragged or typed, Ctrl+M",
}
FROM_BEHIND = {"reach", "shake", "checks", "clash"}
"""Lenses that show what is computed behind."""
