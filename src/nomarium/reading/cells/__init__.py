"""One cell's text to a value."""
