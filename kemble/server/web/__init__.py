"""What holds for every request: middleware, its language, refusals of our faults, TLS and QR codes."""
