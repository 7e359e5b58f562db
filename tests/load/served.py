"""A bench served for real, in a process and a folder of its own, and hands that write to it."""

import http.client
import json
import os
import signal
import socket
import subprocess
import sys
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from tests.conftest import ROOT

PASSWORD = "willow-and-wire-7"
MAKE = """
import json, sys
import django
django.setup()
from django.contrib.auth.models import User
from jamreel.workshop.models import Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from django.contrib.auth.hashers import make_password
brief = json.load(open(sys.argv[1]))
password = make_password(sys.argv[2])
for bench, count in enumerate(json.loads(sys.argv[3])):
    workshop = Workshop.objects.create(name=f"Bench {bench}")
    workshop.members.add(User.objects.create(username=f"maker{bench}", password=password))
    add_stock(workshop, {"kind": "reel", "wire": brief["wire"], "amount": "100000 m"})
    for i in range(count):
        start_piece(workshop, f"Piece {i}", {**brief, "cutting": {"margin": str(i % 40)}})
"""
IDLE_S = 3.0
BRIEF = ROOT / "docs" / "examples" / "sliding-bangle.json"


@dataclass
class Served:
    """A server of its own, with benches made before it starts."""

    data: Path
    benches: list[int]
    port: int = 0
    process: subprocess.Popen[bytes] = field(init=False)

    def __post_init__(self) -> None:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.run("-m", "django", "migrate", "-v0")
        self.run("-c", MAKE, str(BRIEF), PASSWORD, json.dumps(self.benches))

    @property
    def environment(self) -> dict[str, str]:
        """What the server is told."""
        return os.environ | {
            "JAMREEL_DATA": str(self.data),
            "JAMREEL_BIND": f"127.0.0.1:{self.port}",
            "DJANGO_SETTINGS_MODULE": "jamreel.site.settings",
        }

    def run(self, *command: str) -> str:
        """Return what a program of the installation says; it has to end well."""
        done = subprocess.run(
            [sys.executable, *command],
            env=self.environment,
            cwd=ROOT,
            capture_output=True,
            text=True,
            timeout=240,
        )
        assert done.returncode == 0, done.stdout + done.stderr
        return done.stdout

    def __enter__(self) -> "Served":
        command = [sys.executable, "-m", "jamreel", "serve"]
        self.process = subprocess.Popen(command, env=self.environment, cwd=ROOT)
        for _ in range(200):
            try:
                if Hand(self.port).ask("GET", "/healthz")[0] == 200:
                    return self
            except OSError:
                time.sleep(0.1)
        raise AssertionError("it does not start")

    def __exit__(self, *error: object) -> None:
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(30)


class Hand:
    """Somebody at a bench: a connection with a session."""

    def __init__(self, port: int) -> None:
        self.to = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        self.cookies: dict[str, str] = {}
        self.last = time.monotonic()

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """Return the status and the JSON of an answer."""
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        if body is not None:
            headers["Content-Type"] = "application/json"
            headers["X-CSRFToken"] = self.cookies.get("jamreel_csrf", "")
        raw = None if body is None else json.dumps(body)
        # A browser lets an idle connection go before the server does, which is after five seconds.
        if time.monotonic() - self.last > IDLE_S:
            self.to.close()
        used = self.to.sock is not None
        try:
            self.to.request(method, path, raw, headers)
            answer = self.to.getresponse()
        except (BrokenPipeError, ConnectionResetError):
            # Let go by the server just before this was sent: asked again on a new one, once.
            if not used:
                raise
            self.to.close()
            self.to.request(method, path, raw, headers)
            answer = self.to.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        read = answer.read()
        self.last = time.monotonic()
        is_json = "json" in answer.headers.get("Content-Type", "")
        return answer.status, json.loads(read) if is_json else read

    def sign_in(self, bench: int) -> "Hand":
        """Sign in at a bench that was made."""
        self.ask("GET", "/")
        given = {"user": f"maker{bench}", "password": PASSWORD}
        status, said = self.ask("POST", "/api/session/sign-in", given)
        assert status == 200, said
        return self


def trimmed(margin: str) -> dict[str, Any]:
    """A brief that differs from others in one figure."""
    brief: dict[str, Any] = json.loads(BRIEF.read_text())
    return {**brief, "cutting": {"margin": margin}}
