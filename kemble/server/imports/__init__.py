"""What comes in as tables: past batches and weighings."""
