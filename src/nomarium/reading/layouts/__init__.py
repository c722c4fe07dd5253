"""One module a layout."""
