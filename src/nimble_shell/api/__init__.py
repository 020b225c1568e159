"""FastAPI: routers translate, services decide. `main.create_app` wires it all up; start reading there."""
