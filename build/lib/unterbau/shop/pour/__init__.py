"""Pouring: what is filled, grains and mixes, heat and strength over time, moulds that hold."""
