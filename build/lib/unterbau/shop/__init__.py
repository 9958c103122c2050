"""From the design to the shop: pieces, holes, cut plans. Knows no screen and no file."""
