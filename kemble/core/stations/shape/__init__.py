"""Shape: the piece, the tin, the tools."""
