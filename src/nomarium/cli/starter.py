EXAMPLE=""
def starter() -> None: pass
