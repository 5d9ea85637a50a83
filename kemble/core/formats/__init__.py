"""Open formats in and out: plain text of ingredients, shopping lists."""
