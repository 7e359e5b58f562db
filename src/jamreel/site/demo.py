"""Serves the demo bench on 127.0.0.1."""

import os
import socket

PORTS_TO_TRY = 20


def free_port(wanted: int) -> int:
    """Return the wanted port, or the next one that is free. Raises OSError when none is."""
    for port in range(wanted, wanted + PORTS_TO_TRY):
        with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port
    raise OSError(f"no free port from {wanted} to {wanted + PORTS_TO_TRY - 1}")


def serve(wanted: int) -> int:
    """Prepare the demo's database, print the address, and serve until interrupted.

    Prepared and served in one process: loading everything twice would double the start.
    """
    os.environ["JAMREEL_DEMO"] = "1"
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    from django.core.management import call_command
    from django.db import connections
    from gunicorn.app.base import BaseApplication

    from jamreel.site.wsgi import application

    call_command("migrate", verbosity=0, interactive=False, skip_checks=True)
    call_command("demo_bench", verbosity=0, skip_checks=True)
    port = free_port(wanted)

    class Demo(BaseApplication):  # type: ignore[misc]  # gunicorn has no types
        """Gunicorn with what is already loaded."""

        def load_config(self) -> None:
            self.cfg.set("bind", f"127.0.0.1:{port}")
            self.cfg.set("workers", 1)
            self.cfg.set("threads", 4)
            self.cfg.set("loglevel", "warning")
            self.cfg.set("preload_app", True)

        def load(self) -> object:
            return application

    # The worker is forked: it must not share the parent's connection to the database.
    connections.close_all()
    print(f"Jam Reel: http://127.0.0.1:{port}/  (stop with Ctrl-C)", flush=True)
    Demo().run()
    return 0
