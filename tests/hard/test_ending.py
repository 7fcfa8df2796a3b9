"""A server that is asked to end does so, whatever its clients do."""

import signal
import socket
import time

from tests.journeys.servers import Server


def test_a_server_ends_though_a_client_never_sends_all_it_has_announced(tmp_path):
    server = Server(tmp_path / "data")
    head = f"POST /api/scenes HTTP/1.1\r\nhost: 127.0.0.1:{server.port}\r\ncontent-type: application/json\r\ncontent-length: 100\r\n\r\n"
    with socket.create_connection(("127.0.0.1", server.port)) as client:
        client.sendall(head.encode() + b"{")
        time.sleep(0.5)
        server.stop(signal.SIGINT)
        # It would not start again on a folder that another has open.
        server.start()
    server.stop(signal.SIGKILL)
