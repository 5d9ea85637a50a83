"""The stations in working order: each reads the facts before it and adds its own."""
