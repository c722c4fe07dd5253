from nomarium.model.problem import Problem
from nomarium.reading.tables import PassedOver
def read_grid(sheet, options):
    return PassedOver(sheet, "no", Problem("x", "no"))
