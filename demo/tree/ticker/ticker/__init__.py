import os

from flask import Flask, jsonify

from .lines import Lines


def create_app() -> Flask:
    app = Flask(__name__)
    app.config["SECRET_KEY"] = os.environ["TICKER_SECRET_KEY"]
    lines = Lines(limit=int(os.environ.get("TICKER_LINES", "20")))

    @app.get("/")
    def latest():
        return jsonify(lines.latest())

    return app
