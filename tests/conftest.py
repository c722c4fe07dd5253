"""What holds for every test: no build of a test goes into anybody's history, and what is no terminal is 100 columns wide."""

import os

os.environ["NOMARIUM_HISTORY"] = "off"
os.environ["COLUMNS"] = "100"
