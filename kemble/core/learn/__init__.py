"""What a kitchen learns of itself: from clocks, weights and readings to its own rows of the table of estimates."""
