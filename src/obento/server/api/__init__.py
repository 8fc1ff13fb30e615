"""HTTP: each handler reads the request, calls one service and shapes the answer."""
