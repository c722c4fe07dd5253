"""Which table, which columns, what its dates mean."""
