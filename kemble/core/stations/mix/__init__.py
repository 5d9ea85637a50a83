"""Mix: what is in the pot."""
