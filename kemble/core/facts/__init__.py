"""Facts: every number with its range and its because; the words for keys, units and refusals."""
