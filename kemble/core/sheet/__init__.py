"""The sheet: the document, and where each gram of it goes."""
