"""Building: steps in an order that holds, their dates."""
