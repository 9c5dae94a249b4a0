"""A gauge in a process of its own, which knows the line protocol and nothing of us.

``python gauge_process.py socket|pty KIND VALUE UNIT [PORT [ZERO]]`` prints the address it is at; ``ZERO`` is what it
says when it is to be zeroed.
"""

import os
import socket
import sys
import tty


def answer(line: str, kind: str, value: str, unit: str, _port: str = "0", zero: str = "OK") -> str:
    """One line for one line."""
    return {
        "WHO": f"IAM {kind} bench-test 7",
        "READ": f"VAL {value} {unit}",
        "ZERO": zero,
    }.get(line.strip(), "ERR what?")


def main(way: str, *what: str) -> None:
    """Serve until the peer or the cable goes."""
    if way == "socket":
        server = socket.create_server(("127.0.0.1", int(what[3]) if len(what) > 3 else 0))
        print(f"socket://127.0.0.1:{server.getsockname()[1]}", flush=True)  # noqa: T201  its address
        peer, _ = server.accept()
        with peer.makefile("rw", newline="\n") as lines:
            for line in lines:
                lines.write(answer(line, *what) + "\n")
                lines.flush()
        return
    master, slave = os.openpty()
    tty.setraw(slave)
    print(os.ttyname(slave), flush=True)  # noqa: T201  its address
    waiting = b""
    while True:
        waiting += os.read(master, 1024)
        while b"\n" in waiting:
            asked, _, waiting = waiting.partition(b"\n")
            os.write(master, answer(asked.decode(), *what).encode() + b"\n")


if __name__ == "__main__":
    main(*sys.argv[1:])
