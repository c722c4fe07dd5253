"""The exceptions of the program, one tree. The user's mistakes in data are `Problem` values;
these stop a step that cannot go on, and carry the problem that says why."""

from nomarium.model.problem import Problem


class NomariumError(Exception):
    """The root: something that the person can mend, told by its `problem`."""

    def __init__(self, problem: Problem) -> None:
        super().__init__(problem.message)
        self.problem = problem


class SourceError(NomariumError):
    """A source cannot be opened or holds nothing that can be read (exit status 1)."""


class EmptySourceError(SourceError):
    """A source has no contents at all."""


class UsageError(NomariumError):
    """What was asked for makes no sense or does not exist (exit status 2)."""
