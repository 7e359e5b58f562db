"""Serves the demo bench on 127.0.0.1."""

import os
import socket
import sys

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
    """Prepare the demo's database, print the address, and serve until interrupted."""
    os.environ["JAMREEL_DEMO"] = "1"
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    import django
    from django.core.management import call_command

    django.setup()
    call_command("migrate", verbosity=0, interactive=False)
    call_command("demo_bench", verbosity=0)
    port = free_port(wanted)
    print(f"Jam Reel: http://127.0.0.1:{port}/  (stop with Ctrl-C)", flush=True)
    gunicorn = [sys.executable, "-m", "gunicorn", "--bind", f"127.0.0.1:{port}"]
    gunicorn += ["--workers", "1", "--threads", "4", "--log-level", "warning"]
    os.execv(sys.executable, [*gunicorn, "jamreel.site.wsgi:application"])
