"""Serve: `python -m config.serve --port 8317 --workers 1`."""

from __future__ import annotations

import argparse

import uvicorn


def main() -> None:
    """Listen on loopback until told to stop."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--port", type=int, required=True)
    options.add_argument("--workers", type=int, default=1)
    options.add_argument("--reload", action="append", help="begin anew when something in this folder changes")
    options.add_argument("--log-level", default="warning")
    given = options.parse_args()
    uvicorn.run(
        "config.asgi:application",
        host="127.0.0.1",
        port=given.port,
        workers=given.workers,
        reload=bool(given.reload),
        reload_dirs=given.reload,
        http="config.door:PatientProtocol",
        log_level=given.log_level,
        lifespan="off",
        timeout_graceful_shutdown=3,
        # What a proxy on this machine says of the address and the scheme is believed, and nobody else.
        forwarded_allow_ips="127.0.0.1",
        server_header=False,
    )


if __name__ == "__main__":
    main()
