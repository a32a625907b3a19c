import os

import httpx
from fastapi import FastAPI, HTTPException

from .seeing import verdict

app = FastAPI(title="Will the sky be clear tonight?")

STATION = os.environ.get("STATION", "hill")
WEATHER_URL = os.environ["WEATHER_URL"]


@app.get("/")
async def tonight():
    async with httpx.AsyncClient(timeout=5) as client:
        answer = await client.get(WEATHER_URL, params={"station": STATION})
    if answer.status_code != 200:
        raise HTTPException(status_code=502, detail="the weather station is silent")
    return {"station": STATION, "tonight": verdict(answer.json())}
