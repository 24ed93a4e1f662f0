"""A device in Python, with nothing but its standard library: the same thermometer as device.mjs.

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

host = sys.argv[1] if len(sys.argv) > 1 else "127.0.0.1"
port = int(sys.argv[2]) if len(sys.argv) > 2 else 4600

HELLO = {
    "type": "hello",
    "protocol": "heuristor-link",
    "version": 2,
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
        sys.exit(answer.decode())


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
            sys.exit("the server has closed the link")
        data += part
    return data


def receive(link):
    """The next message, or None where none has come."""
    try:
        head = link.recv(2)
    except BlockingIOError:
        return None
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


link = socket.create_connection((host, port))
shake_hands(link)
send(link, 1, json.dumps(HELLO).encode())
link.setblocking(False)
stream, rate, began, sent = None, 10, 0.0, 0
while True:
    message = receive(link)
    if message and message["type"] == "refused":
        sys.exit(message["message"])
    if message and message["type"] == "start":
        stream, rate, began, sent = message["stream"], message["rate"], time.monotonic(), 0
    if message and message["type"] == "stop":
        stream = None
    due = int((time.monotonic() - began) * rate) + 1
    if stream is not None and due > sent:
        values = [20 + 60 * math.exp(-i / rate / 120) for i in range(sent, due)]
        head = struct.pack("<BBBBIII", 0x48, 1, 0, 1, stream, sent, len(values))
        send(link, 2, head + struct.pack(f"<{len(values)}d", *values))
        sent = due
    time.sleep(0.02)
