"""A device in Python, with nothing but its standard library: the same thermometer as device.mjs. When its link breaks it goes on
reading, comes back, and sends again what was lost.

    python3 examples/device.py [127.0.0.1] [4600]

What is said here is told in docs/device-link.md; a WebSocket is RFC 6455, of which a device needs the little below.
"""
import base64
import json
import math
import os
import socket
import struct
import sys
import time

KEPT_SECONDS = 10
host = sys.argv[1] if len(sys.argv) > 1 else "127.0.0.1"
port = int(sys.argv[2]) if len(sys.argv) > 2 else 4600

HELLO = {
    "type": "hello",
    "protocol": "heuristor-link",
    "version": 3,
    "device": {"code": "P1-S", "model": "Thermometer in Python"},
    "streams": [{
        "key": "main",
        "rates": {"lowest": 1, "highest": 100, "usual": 10},
        "channels": [{
            "key": "temperature", "quantity": "temperature", "symbol": "T", "unit": "Cel",
            "ranges": [{"key": "only", "low": -50, "high": 150, "noise": 0.05}],
        }],
    }],
}


def shake_hands(link):
    key = base64.b64encode(os.urandom(16)).decode()
    link.sendall((f"GET /link HTTP/1.1\r\nHost: {host}:{port}\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n"
                  f"Sec-WebSocket-Key: {key}\r\nSec-WebSocket-Version: 13\r\n\r\n").encode())
    answer = b""
    while b"\r\n\r\n" not in answer:
        answer += link.recv(1)
    if b" 101 " not in answer.split(b"\r\n")[0]:
        raise ConnectionError(answer.decode())


def send(link, opcode, payload):
    """One message; a client masks what it sends."""
    mask = os.urandom(4)
    length = len(payload)
    head = bytes([0x80 | opcode])
    head += bytes([0x80 | length]) if length < 126 else bytes([0xFE]) + struct.pack(">H", length)
    link.sendall(head + mask + bytes(byte ^ mask[i % 4] for i, byte in enumerate(payload)))


def exactly(link, count):
    data = b""
    while len(data) < count:
        part = link.recv(count - len(data))
        if not part:
            raise ConnectionError("the server has closed the link")
        data += part
    return data


def receive(link):
    """The next message, or None where none has come."""
    try:
        head = link.recv(2)
    except BlockingIOError:
        return None
    if not head:
        raise ConnectionError("the server has closed the link")
    link.setblocking(True)
    if len(head) < 2:
        head += exactly(link, 2 - len(head))
    length = head[1] & 0x7F
    if length == 126:
        length = struct.unpack(">H", exactly(link, 2))[0]
    elif length == 127:
        length = struct.unpack(">Q", exactly(link, 8))[0]
    payload = exactly(link, length)
    link.setblocking(False)
    if head[0] & 0x0F == 9:  # a ping wants its pong
        send(link, 10, payload)
    return json.loads(payload) if head[0] & 0x0F == 1 else None


class Stream:
    """What it was told to send, with its latest readings and the index of the first of them."""

    def __init__(self, number, rate):
        self.number, self.rate, self.began = number, rate, time.monotonic()
        self.first, self.latest = 0, []

    @property
    def next(self):
        return self.first + len(self.latest)

    def read(self):
        """Takes as many readings as are due by now: a cup of tea that cools down; put the reading of a true sensor here."""
        due = int((time.monotonic() - self.began) * self.rate) + 1
        self.latest += [20 + 60 * math.exp(-i / self.rate / 120) for i in range(self.next, due)]
        spare = max(len(self.latest) - int(KEPT_SECONDS * self.rate), 0)
        self.first += spare
        del self.latest[:spare]

    def send(self, link, start):
        """Sends the readings from an index on."""
        values = self.latest[start - self.first:]
        head = struct.pack("<BBBBIII", 0x48, 1, 0, 1, self.number, start, len(values))
        send(link, 2, head + struct.pack(f"<{len(values)}d", *values))


def serve(stream):
    """Talks to the server until the link breaks. Yields the stream whenever something was done."""
    link = socket.create_connection((host, port))
    shake_hands(link)
    goes_on = [] if stream is None else [{"of": "main", "stream": stream.number, "from": stream.first}]
    send(link, 1, json.dumps({**HELLO, "goesOn": goes_on}).encode())
    link.setblocking(False)
    # Until the server says so, what goes on is read and not sent.
    held = stream is not None
    while True:
        message = receive(link)
        kind = message["type"] if message else None
        if kind == "refused":
            sys.exit(message["message"])
        if kind == "start":
            stream, held = Stream(message["stream"], message["rate"]), False
        if kind == "stop":
            stream = None
        if stream is not None:
            start = stream.next
            stream.read()
            if kind == "go-on":  # the server has got everything before this index
                start, held = max(message["from"], stream.first), False
            if not held and stream.next > start:
                stream.send(link, start)
        yield stream
        time.sleep(0.02)


stream, broken_since = None, time.monotonic()
while True:
    try:
        for stream in serve(stream):
            broken_since = time.monotonic()
    except OSError:
        # Back soon, and with what it read meanwhile; not with what is older than what it keeps.
        time.sleep(0.5)
        if stream is not None:
            stream.read()
        if time.monotonic() - broken_since > KEPT_SECONDS:
            stream = None
