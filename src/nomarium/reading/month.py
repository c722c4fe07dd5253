from nomarium.model.problem import Problem
from nomarium.reading.tables import PassedOver
def read_month(sheet, options):
    return PassedOver(sheet, "no", Problem("x", "no"))
