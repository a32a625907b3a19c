from aiohttp import web

from .doors import routes
from .settings import Settings


def main() -> None:
    settings = Settings.from_environment()
    app = web.Application()
    app["settings"] = settings
    app.add_routes(routes)
    web.run_app(app, host=settings.host, port=settings.port)


if __name__ == "__main__":
    main()
