"""What Python does over the same file: mailbox and email, with date, sender, subject and attachment names read.
usage: python3 python_import.py FILE…   prints messages and seconds"""
import mailbox
import email.utils
import sys
import time

start = time.perf_counter()
messages = 0
for file in sys.argv[1:]:
    for message in mailbox.mbox(file, create=False):
        messages += 1
        email.utils.parsedate_tz(str(message['date']))
        email.utils.parseaddr(str(message['from']))
        str(message['subject'])
        for part in message.walk():
            part.get_filename()
print(messages, time.perf_counter() - start)
