"""Reads a raw message from standard input with Python's own parser, and tells in JSON what it found."""

import json
import sys
from email import message_from_bytes, policy

message = message_from_bytes(sys.stdin.buffer.read(), policy=policy.default)


def body(kind):
    part = message.get_body(preferencelist=(kind,))
    return None if part is None else part.get_content()


print(
    json.dumps(
        {
            "subject": message["Subject"],
            "from": [[one.display_name, one.addr_spec] for one in message["From"].addresses],
            "to": [one.addr_spec for one in message["To"].addresses],
            "in_reply_to": message["In-Reply-To"],
            "references": (message["References"] or "").split(),
            "date": message["Date"].datetime.isoformat(),
            "structure": [part.get_content_type() for part in message.walk()],
            "text": body("plain"),
            "html": body("html"),
            "defects": [str(one) for part in message.walk() for one in part.defects]
            + [str(one) for _, value in message.items() for one in value.defects],
        }
    )
)
