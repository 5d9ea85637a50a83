"""The functional core: facts in, facts out. No clock, no database, no framework."""
