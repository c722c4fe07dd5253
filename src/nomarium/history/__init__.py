"""What an earlier build had: pairing of old and new, revisions."""
