"""Scale and thermometer: what their lines mean, and simulated ones."""
