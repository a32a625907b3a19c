package python

// distributions says which distribution gives an import whose name is
// another. Source: the distributions' own metadata (top_level.txt or
// RECORD), read 2026-11. Several are separated by spaces.
var distributions = map[string]string{
	"yaml": "pyyaml ruamel-yaml", "PIL": "pillow pillow-simd", "cv2": "opencv-python opencv-python-headless opencv-contrib-python opencv-contrib-python-headless",
	"dotenv": "python-dotenv", "sklearn": "scikit-learn", "bs4": "beautifulsoup4", "skimage": "scikit-image", "jwt": "pyjwt",
	"dateutil": "python-dateutil", "jose": "python-jose", "magic": "python-magic python-magic-bin", "multipart": "python-multipart",
	"psycopg2": "psycopg2 psycopg2-binary", "psycopg": "psycopg", "MySQLdb": "mysqlclient", "mysql": "mysql-connector-python", "pymysql": "pymysql",
	"Crypto": "pycryptodome pycrypto", "Cryptodome": "pycryptodomex", "OpenSSL": "pyopenssl", "nacl": "pynacl", "serial": "pyserial", "usb": "pyusb",
	"rest_framework": "djangorestframework", "rest_framework_simplejwt": "djangorestframework-simplejwt", "corsheaders": "django-cors-headers",
	"environ": "django-environ environ-config", "environs": "environs", "decouple": "python-decouple", "dj_database_url": "dj-database-url", "whitenoise": "whitenoise",
	"debug_toolbar": "django-debug-toolbar", "crispy_forms": "django-crispy-forms", "django_filters": "django-filter", "storages": "django-storages",
	"allauth": "django-allauth", "django_extensions": "django-extensions", "import_export": "django-import-export", "widget_tweaks": "django-widget-tweaks",
	"tinymce": "django-tinymce", "ckeditor": "django-ckeditor", "compressor": "django-compressor", "mptt": "django-mptt", "guardian": "django-guardian", "axes": "django-axes",
	"channels": "channels", "drf_yasg": "drf-yasg", "drf_spectacular": "drf-spectacular", "oauth2_provider": "django-oauth-toolkit", "simple_history": "django-simple-history",
	"taggit": "django-taggit", "django_redis": "django-redis", "django_celery_beat": "django-celery-beat", "django_celery_results": "django-celery-results", "phonenumber_field": "django-phonenumber-field",
	"modelcluster": "django-modelcluster", "wagtail": "wagtail", "constance": "django-constance", "waffle": "django-waffle", "health_check": "django-health-check", "csp": "django-csp",
	"flask_sqlalchemy": "flask-sqlalchemy", "flask_migrate": "flask-migrate", "flask_login": "flask-login", "flask_wtf": "flask-wtf", "flask_cors": "flask-cors",
	"flask_socketio": "flask-socketio", "flask_restful": "flask-restful", "flask_jwt_extended": "flask-jwt-extended", "flask_mail": "flask-mail", "flask_bcrypt": "flask-bcrypt",
	"flask_limiter": "flask-limiter", "flask_caching": "flask-caching", "flask_session": "flask-session", "socketio": "python-socketio", "engineio": "python-engineio",
	"git": "gitpython", "github": "pygithub", "docx": "python-docx", "pptx": "python-pptx", "fitz": "pymupdf", "PyPDF2": "pypdf2", "slugify": "python-slugify unicode-slugify",
	"telegram": "python-telegram-bot", "discord": "discord-py py-cord", "ldap": "python-ldap", "ldap3": "ldap3", "memcache": "python-memcached", "pylibmc": "pylibmc",
	"zmq": "pyzmq", "kafka": "kafka-python kafka-python-ng", "pika": "pika", "nats": "nats-py", "paho": "paho-mqtt", "bson": "pymongo", "gridfs": "pymongo", "pymongo": "pymongo",
	"google": "protobuf", "googleapiclient": "google-api-python-client", "attr": "attrs", "attrs": "attrs",
	"pkg_resources": "setuptools", "setuptools": "setuptools", "wx": "wxpython", "gi": "pygobject", "lxml": "lxml", "markdown": "markdown", "Levenshtein": "levenshtein python-levenshtein",
	"pydantic_settings": "pydantic-settings", "starlette": "starlette", "email_validator": "email-validator", "jinja2": "jinja2", "markupsafe": "markupsafe", "mako": "mako",
	"sqlalchemy": "sqlalchemy", "alembic": "alembic", "tornado": "tornado", "websocket": "websocket-client", "websockets": "websockets", "requests_oauthlib": "requests-oauthlib",
	"aioredis": "aioredis", "redis": "redis", "celery": "celery", "rq": "rq", "apscheduler": "apscheduler", "schedule": "schedule", "unidecode": "unidecode", "tzlocal": "tzlocal",
	"pythonjsonlogger": "python-json-logger", "sentry_sdk": "sentry-sdk", "prometheus_client": "prometheus-client", "opentelemetry": "opentelemetry-api opentelemetry-sdk",
	"ephem": "ephem", "astropy": "astropy", "skyfield": "skyfield", "haversine": "haversine", "shapely": "shapely", "osgeo": "gdal", "mpl_toolkits": "matplotlib", "pylab": "matplotlib",
	"tensorflow": "tensorflow tensorflow-cpu tensorflow-gpu", "torch": "torch", "torchvision": "torchvision", "faiss": "faiss-cpu faiss-gpu", "xgboost": "xgboost xgboost-cpu", "umap": "umap-learn",
	"playhouse": "peewee", "peewee": "peewee", "nio": "matrix-nio", "ruamel": "ruamel-yaml", "zope": "zope-interface", "past": "future", "builtins": "future", "antlr4": "antlr4-python3-runtime",
	"graphene_django": "graphene-django", "strawberry": "strawberry-graphql", "ariadne": "ariadne", "httpx": "httpx", "typing_extensions": "typing-extensions", "Xlib": "python-xlib", "win32api": "pywin32", "win32com": "pywin32",
	"cairo": "pycairo", "qrcode": "qrcode", "barcode": "python-barcode", "pytz": "pytz", "gevent": "gevent", "eventlet": "eventlet", "itsdangerous": "itsdangerous", "werkzeug": "werkzeug", "passlib": "passlib", "bcrypt": "bcrypt", "argon2": "argon2-cffi",
	"pip": "pip", "wheel": "wheel", "_pytest": "pytest", "pytest": "pytest", "editor": "python-editor", "snowflake": "snowflake-connector-python", "user_agents": "user-agents", "iso8601": "iso8601", "ics": "ics", "icalendar": "icalendar",
}

// brings says which imports come with a distribution because it always
// installs them. Source: the distributions' Requires-Dist, read 2026-11.
var brings = map[string]string{
	"flask": "werkzeug jinja2 click itsdangerous markupsafe blinker", "quart": "werkzeug jinja2 click itsdangerous markupsafe blinker hypercorn",
	"django": "asgiref sqlparse", "djangorestframework": "django asgiref sqlparse", "fastapi": "starlette pydantic typing_extensions anyio annotated_types pydantic_core",
	"fastapi-cli": "uvicorn typer click rich", "fastapi[standard]": "uvicorn httpx jinja2 multipart email_validator typer click rich fastapi_cli dotenv yaml watchfiles websockets",
	"fastapi[all]": "uvicorn httpx jinja2 multipart email_validator itsdangerous yaml orjson ujson pydantic_settings dotenv websockets watchfiles",
	"uvicorn":      "click h11", "uvicorn[standard]": "click h11 httptools uvloop watchfiles websockets dotenv yaml", "starlette": "anyio typing_extensions",
	"requests": "urllib3 certifi idna charset_normalizer", "httpx": "httpcore anyio certifi idna sniffio h11", "aiohttp": "yarl multidict attr attrs aiosignal frozenlist async_timeout",
	"sqlalchemy": "typing_extensions greenlet", "flask-sqlalchemy": "sqlalchemy flask werkzeug jinja2 click", "flask-migrate": "alembic flask flask_sqlalchemy mako sqlalchemy", "alembic": "mako sqlalchemy typing_extensions",
	"pandas": "numpy dateutil pytz six", "matplotlib": "numpy PIL dateutil cycler kiwisolver pyparsing mpl_toolkits pylab packaging", "scikit-learn": "numpy scipy joblib threadpoolctl", "scipy": "numpy",
	"celery": "kombu billiard vine click amqp dateutil", "pydantic": "typing_extensions pydantic_core annotated_types", "pydantic-settings": "pydantic dotenv typing_extensions pydantic_core",
	"boto3": "botocore s3transfer jmespath dateutil urllib3", "django-allauth": "django asgiref requests jwt", "wagtail": "django taggit modelcluster treebeard rest_framework PIL bs4 requests", "channels": "django asgiref", "daphne": "twisted autobahn asgiref",
	"streamlit": "pandas numpy PIL requests altair tornado toml click packaging google", "tensorflow": "numpy google six h5py", "torch": "typing_extensions jinja2 networkx sympy filelock numpy", "astropy": "numpy erfa yaml packaging",
	"jupyter": "IPython", "ipython": "traitlets pygments prompt_toolkit", "rich": "pygments", "python-socketio": "engineio bidict", "flask-socketio": "flask socketio engineio werkzeug", "flask-login": "flask werkzeug", "flask-wtf": "flask wtforms itsdangerous",
	"twisted": "zope attr attrs constantly incremental", "gevent": "greenlet zope", "eventlet": "greenlet dns", "dash": "flask plotly werkzeug", "skyfield": "numpy jplephem sgp4 certifi", "starlette[full]": "itsdangerous jinja2 multipart httpx yaml", "django-environ": "", "opencv-python": "numpy", "opencv-python-headless": "numpy",
}
