"""Delivers a message with Python's own SMTP client, as a script of somebody's would.

Use: deliver.py PORT FROM TO; the message (JSON: subject, text, html, file) is read from standard input.
"""

import json
import smtplib
import sys
from email.message import EmailMessage
from email.utils import make_msgid

port, sender, recipient = sys.argv[1:]
given = json.load(sys.stdin)
message = EmailMessage()
message["From"] = sender
message["To"] = recipient
message["Subject"] = given["subject"]
message["Message-ID"] = make_msgid(domain="script.example.net")
message.set_content(given["text"])
message.add_alternative(given["html"], subtype="html")
message.add_attachment(given["file"].encode(), maintype="text", subtype="plain", filename="Fährschein.txt")
with smtplib.SMTP("127.0.0.1", int(port)) as server:
    server.send_message(message)
print(json.dumps({"id": message["Message-ID"]}))
