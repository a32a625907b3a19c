"""From clouds, wind and dew point to a word that visitors understand."""


def verdict(reading: dict) -> str:
    clouds = reading.get("clouds", 100)
    spread = reading.get("temperature", 0) - reading.get("dew_point", 0)
    match (clouds < 20, spread > 3):
        case (True, True):
            return "clear"
        case (True, False):
            return "clear, but the mirror may fog"
        case _:
            return "cloudy"
