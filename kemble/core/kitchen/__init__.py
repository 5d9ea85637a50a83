"""The kitchen: what stands in it, what it has measured, and its shelf."""
