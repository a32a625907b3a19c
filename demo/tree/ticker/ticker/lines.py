from collections import deque


class Lines:
    """The newest lines, oldest first."""

    def __init__(self, limit: int) -> None:
        self._lines: deque[str] = deque(maxlen=limit)

    def add(self, text: str) -> None:
        self._lines.append(text.strip())

    def latest(self) -> list[str]:
        return list(self._lines)
