"""What the kitchen has learned: the posterior over its estimates, and what drifts from batch to batch."""
