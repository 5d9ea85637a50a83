"""The data folder and the database: fields, locks, idempotency keys, trash, backups and their encryption."""
