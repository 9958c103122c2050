"""Kinds of machine: one folder each."""
