"""Changing a sheet: adjust, exchange, both sides of a question, sharing, shopping."""
