"""The Saltmarsh School of Boatbuilding: made-up sample data in the forms in which such lists arrive."""
