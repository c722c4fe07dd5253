"""What holds for every test: no build of a test goes into anybody's history, what is no terminal is 100 columns wide, and a busy
machine, on which examples are slow to make, is no failure."""

import os

from hypothesis import HealthCheck, settings

os.environ["NOMARIUM_HISTORY"] = "off"
os.environ["COLUMNS"] = "100"
settings.register_profile("any machine", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("any machine")
