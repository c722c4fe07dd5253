"""What holds for every test: no build of a test goes into anybody's history."""

import os

os.environ["NOMARIUM_HISTORY"] = "off"
