EXAMPLE=""
def survey() -> None: pass
