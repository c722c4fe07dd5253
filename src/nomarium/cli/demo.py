EXAMPLE=""
def demo() -> None: pass
