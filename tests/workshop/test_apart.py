"""Work in a process of its own: its answers and errors come back, its bounds hold."""

import os
import resource
import signal

import pytest

from jamreel.core.errors import Refusal
from jamreel.workshop.apart import Broken, Spent, apart
from jamreel.workshop.slots import AT_ONCE, alone


def niceness(_: int) -> tuple[int, int]:
    return os.getpid(), os.nice(0)


def greedy(megabytes: int) -> int:
    return len(bytearray(megabytes * 1_000_000))


def endless(_: int) -> None:
    while True:
        pass


def refuses(got: str) -> None:
    raise Refusal("length", got=got, field="here", likely=3.0)


def dies(code: int) -> None:
    os._exit(code)


def ended(by: int) -> None:
    os.kill(os.getpid(), by)


def test_a_process_that_ends_by_itself_is_no_bound() -> None:
    with pytest.raises(Broken, match="3"):
        apart(dies, 3, seconds=5, megabytes=100)


def test_it_is_done_elsewhere_and_gives_way() -> None:
    pid, nice = apart(niceness, 0, seconds=5, megabytes=100)
    assert pid != os.getpid()
    assert nice > os.nice(0)


def test_memory_and_time_are_bounded_and_the_server_s_own_are_not() -> None:
    before = resource.getrlimit(resource.RLIMIT_AS)
    assert apart(greedy, 50, seconds=5, megabytes=200) == 50_000_000
    with pytest.raises(Spent):
        apart(greedy, 900, seconds=5, megabytes=200)
    with pytest.raises(Spent):
        apart(endless, 0, seconds=0.5, megabytes=100)
    with pytest.raises(Spent):
        apart(ended, signal.SIGKILL, seconds=5, megabytes=100)
    assert resource.getrlimit(resource.RLIMIT_AS) == before


def test_a_refusal_comes_back_as_it_was_made() -> None:
    with pytest.raises(Refusal) as refused:
        apart(refuses, "ab", seconds=5, megabytes=100)
    found = refused.value
    assert (found.key, found.got, found.field, found.values) == (
        "length",
        "ab",
        "here",
        {"likely": 3.0},
    )


def test_one_at_a_time_for_a_bench_and_a_few_in_all() -> None:
    with alone("day", 1) as first:
        assert first
        with alone("day", 1) as again:
            assert not again
        # Of another kind, or for another bench, as far as there is room at all.
        with alone("photo", 1) as other:
            assert other == (AT_ONCE > 1)
    with alone("day", 1) as later:
        assert later
