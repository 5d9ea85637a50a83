"""Runs as they are stored: their events, those that are made together, and their pictures."""
