import os
from dataclasses import dataclass


@dataclass(frozen=True)
class Settings:
    host: str
    port: int
    open_minutes: int

    @classmethod
    def from_environment(cls) -> "Settings":
        return cls(
            host=os.environ.get("HOST", "0.0.0.0"),
            port=int(os.environ.get("PORT", "8080")),
            open_minutes=int(os.environ.get("OPEN_MINUTES", "15")),
        )
