"""The log: tastes, faults, what was told beside what came."""
