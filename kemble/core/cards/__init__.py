"""The cards of ways and parts, and the tables that hang on them. Data; computes nothing."""
