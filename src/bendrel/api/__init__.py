"""The web interface of the services: routers, safety and the built screens."""
