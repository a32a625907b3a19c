from aiohttp import web

routes = web.RouteTableDef()


@routes.get("/")
async def state(request: web.Request) -> web.Response:
    settings = request.app["settings"]
    return web.json_response({"gate": "closed", "opens_for": settings.open_minutes})
