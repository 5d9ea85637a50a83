"""The science that does the judging: SI units inside, minutes and millimetres at the edge of the stations."""
