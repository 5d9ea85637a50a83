"""Heat: one module for each way of heating."""
