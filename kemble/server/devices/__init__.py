"""Devices on the counter, behind one small interface each: a port that speaks lines, and a watch that tells readings."""
