"""How far a job beside the window is, and a way to stop it."""

from hardkeel.base.errors import GivenUp


class Progress:
    """Told by the job in its thread, read by the window in its own; plain numbers need no lock.

    Attributes
    ----------
    done, total : int
        Steps; a total of 0 is not known yet.
    doing : str
        What it is at, in a word or two; empty where it does not say.
    """

    def __init__(self) -> None:
        self.done = self.total = 0
        self.doing = ""
        self._stopped = False

    def stop(self) -> None:
        """Let the job end at its next step."""
        self._stopped = True

    def name(self, what: str) -> None:
        """Say what it is at; for the job.

        Raises
        ------
        GivenUp
            When it was stopped.
        """
        self.doing = what
        if self._stopped:
            raise GivenUp("stopped")

    def step(self, done: int, total: int) -> None:
        """Say how far it is; for the job.

        Raises
        ------
        GivenUp
            When it was stopped.
        """
        self.done, self.total = done, total
        if self._stopped:
            raise GivenUp("stopped")
