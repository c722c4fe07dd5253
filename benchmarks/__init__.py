"""Our figures beside their yardsticks, from the same run."""
