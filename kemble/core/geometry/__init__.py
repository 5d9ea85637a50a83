"""Geometry of pieces, trays and sheets of dough. Millimetres, millilitres and grams; knows nothing of sheets or ways."""
