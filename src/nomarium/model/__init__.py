"""Plain frozen data that every other part passes along: events, problems, the ledger, errors."""
