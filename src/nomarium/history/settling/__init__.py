"""Settling three ways: what the source said at the last build, what it says now, what people made of it in the calendar."""
