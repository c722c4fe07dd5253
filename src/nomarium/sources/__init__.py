"""Each kind of source gives the same thing: its events, and an account of what was read."""
