"""The one stream: sources into targets; window, repeats, twins, counting."""
