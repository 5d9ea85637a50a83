"""Kemble: a workbench for home cooks who make sweet-rice cakes."""

__version__ = "0.1.0"
