"""Mail, where a mail server is set (RT_SMTP_URL); without one every link is shown to copy."""

from __future__ import annotations

import logging
import smtplib

from django.conf import settings
from django.core.mail import EmailMessage

__all__ = ["has_mail", "send"]

_LOG = logging.getLogger("redtally.mail")


def has_mail() -> bool:
    return bool(settings.EMAIL_HOST)


def send(to: str, subject: str, text: str) -> str:
    """Send one; the empty string, or in a sentence why it did not go."""
    try:
        EmailMessage(subject, text, settings.DEFAULT_FROM_EMAIL, [to]).send()
    except (smtplib.SMTPException, OSError) as error:
        _LOG.warning("mail not sent: %s", error)
        return "The mail could not be sent. Copy the link and send it yourself."
    return ""
