"""What work() gives for stored sheets, remembered."""
