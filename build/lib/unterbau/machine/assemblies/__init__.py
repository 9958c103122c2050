"""Assemblies that several kinds of machine share."""
