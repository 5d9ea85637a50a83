"""From the steps of a way to a schedule counted back from when people eat."""
