"""A calendar as one web page: nothing is fetched, and without scripts it is a list."""
