"""Rest, cut and keep."""
