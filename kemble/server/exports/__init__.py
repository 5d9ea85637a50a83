"""What goes out and comes back: tables, and archives of a whole kitchen."""
