"""A row to an event or a blame."""
