"""A making: events, and what they come to."""
