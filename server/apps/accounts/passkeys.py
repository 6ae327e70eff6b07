"""Signing in with a key of the device or a security key (W3C Web Authentication): the person shows a finger, a face or a number to the device,
and the device signs what this server asked. No password, and nothing that could be typed into a false page.
"""

from __future__ import annotations

import json
from typing import Any, Final

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.utils import timezone
from webauthn import (
    generate_authentication_options,
    generate_registration_options,
    options_to_json,
    verify_authentication_response,
    verify_registration_response,
)
from webauthn.helpers import base64url_to_bytes, bytes_to_base64url
from webauthn.helpers.exceptions import WebAuthnException
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from apps.accounts.models import Passkey
from apps.workshops.errors import Refused

__all__ = ["add", "ask_for_new", "ask_who", "take_away", "who"]

_NEW: Final = "passkey-new"
_WHO: Final = "passkey-who"
_MOST: Final = 10
_SITE: Final = "Red Tally"


def _site(request: HttpRequest) -> str:
    return request.get_host().rsplit(":", 1)[0]


def _origin(request: HttpRequest) -> str:
    return f"{request.scheme}://{request.get_host()}"


def _asked(request: HttpRequest, which: str) -> bytes:
    """What the device was asked to sign; good for one answer."""
    asked = request.session.pop(which, None)
    if asked is None:
        raise Refused("passkey_stale", "That took too long. Begin once more.", 409)
    return base64url_to_bytes(str(asked))


def ask_for_new(request: HttpRequest, user: User) -> dict[str, Any]:
    """What the device is asked to make a key from (`PublicKeyCredentialCreationOptions` as JSON)."""
    known = list(Passkey.objects.filter(user=user).values_list("credential", flat=True))
    if len(known) >= _MOST:
        raise Refused("too_many_keys", f"There are {_MOST} keys already. Take one away first.", 409)
    options = generate_registration_options(
        rp_id=_site(request), rp_name=_SITE, user_id=f"red-tally-{user.pk}".encode(), user_name=user.username,
        exclude_credentials=[PublicKeyCredentialDescriptor(id=base64url_to_bytes(each)) for each in known],
        authenticator_selection=AuthenticatorSelectionCriteria(
            resident_key=ResidentKeyRequirement.REQUIRED, user_verification=UserVerificationRequirement.REQUIRED
        ),
    )  # fmt: skip
    request.session[_NEW] = bytes_to_base64url(options.challenge)
    return dict(json.loads(options_to_json(options)))


def add(request: HttpRequest, user: User, name: str, credential: dict[str, Any]) -> Passkey:
    """Keep the key a device made.

    Raises
    ------
    Refused
        where it does not answer what was asked, or not from this address.
    """
    challenge = _asked(request, _NEW)
    try:
        found = verify_registration_response(
            credential=credential, expected_challenge=challenge, expected_rp_id=_site(request), expected_origin=_origin(request),
            require_user_verification=True,
        )  # fmt: skip
    except (WebAuthnException, ValueError, KeyError, TypeError) as error:
        raise Refused(
            "bad_passkey", "The device’s answer does not fit what was asked. Begin once more.", 422
        ) from error
    known = bytes_to_base64url(found.credential_id)
    if Passkey.objects.filter(credential=known).exists():
        raise Refused("passkey_known", "That key is kept already.", 409)
    return Passkey.objects.create(
        user=user, credential=known, public_key=found.credential_public_key, sign_count=found.sign_count, name=name, made_at=timezone.now()
    )  # fmt: skip


def take_away(user: User, key: int) -> None:
    Passkey.objects.filter(user=user, pk=key).delete()


def ask_who(request: HttpRequest) -> dict[str, Any]:
    """What whatever key the person has is asked to sign (`PublicKeyCredentialRequestOptions` as JSON)."""
    options = generate_authentication_options(
        rp_id=_site(request), user_verification=UserVerificationRequirement.REQUIRED
    )
    request.session[_WHO] = bytes_to_base64url(options.challenge)
    return dict(json.loads(options_to_json(options)))


def who(request: HttpRequest, credential: dict[str, Any]) -> User:
    """Whose key signed.

    Raises
    ------
    Refused
        for a key nobody here has, or an answer that does not fit.
    """
    challenge = _asked(request, _WHO)
    key = (
        Passkey.objects.select_for_update(of=("self",))
        .select_related("user")
        .filter(credential=str(credential.get("id", "")))
        .first()
    )
    if key is None or not key.user.is_active:
        raise Refused("unknown_passkey", "Nobody here has that key. Sign in with the password.", 401)
    try:
        found = verify_authentication_response(
            credential=credential, expected_challenge=challenge, expected_rp_id=_site(request), expected_origin=_origin(request),
            credential_public_key=bytes(key.public_key), credential_current_sign_count=key.sign_count, require_user_verification=True,
        )  # fmt: skip
    except (WebAuthnException, ValueError, KeyError, TypeError) as error:
        raise Refused("bad_passkey", "The device’s answer does not fit what was asked. Try once more.", 401) from error
    key.sign_count, key.used_at = found.new_sign_count, timezone.now()
    key.save(update_fields=["sign_count", "used_at"])
    return key.user
