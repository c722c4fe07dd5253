"""What is wrong with a calendar although every event of it could be read."""
