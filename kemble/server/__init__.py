"""The Django app: kitchens, sheets, plans, runs and the log in the database, and the API over them."""
