"""Joints, guides, drives and prices as data, each value with its source."""
