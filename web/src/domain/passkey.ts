/** Between the JSON of Web Authentication and what browsers take and give, which is bytes. */

type Json = Record<string, unknown>

const bytes = (text: string): ArrayBuffer => {
  const plain = atob(text.replace(/-/g, '+').replace(/_/g, '/'))
  return Uint8Array.from(plain, (each) => each.charCodeAt(0)).buffer
}
const text = (buffer: ArrayBuffer): string =>
  btoa(String.fromCharCode(...new Uint8Array(buffer)))
    .replace(/\+/g, '-')
    .replace(/\//g, '_')
    .replace(/=+$/, '')

const known = (list: unknown): PublicKeyCredentialDescriptor[] =>
  (Array.isArray(list) ? (list as Json[]) : []).map((each) => ({
    type: 'public-key',
    id: bytes(String(each['id'])),
  }))

/** Whether this browser has passkeys here: only over https, or on this machine by the name localhost. */
export const hasPasskeys = (): boolean =>
  typeof PublicKeyCredential !== 'undefined' && !/^[\d.]+$|:/.test(location.hostname)

/** Have the device make a key. */
export async function makePasskey(options: Json): Promise<Json> {
  const user = options['user'] as Json
  const made = (await navigator.credentials.create({
    publicKey: {
      ...(options as unknown as PublicKeyCredentialCreationOptions),
      challenge: bytes(String(options['challenge'])),
      user: { ...(user as unknown as PublicKeyCredentialUserEntity), id: bytes(String(user['id'])) },
      excludeCredentials: known(options['excludeCredentials']),
    },
  })) as PublicKeyCredential | null
  if (!made) throw new Error('no key')
  const answer = made.response as AuthenticatorAttestationResponse
  return {
    id: made.id,
    rawId: text(made.rawId),
    type: made.type,
    response: {
      clientDataJSON: text(answer.clientDataJSON),
      attestationObject: text(answer.attestationObject),
    },
  }
}

/** Have the device sign with a key it holds. */
export async function signWithPasskey(options: Json): Promise<Json> {
  const found = (await navigator.credentials.get({
    publicKey: {
      ...(options as unknown as PublicKeyCredentialRequestOptions),
      challenge: bytes(String(options['challenge'])),
      allowCredentials: known(options['allowCredentials']),
    },
  })) as PublicKeyCredential | null
  if (!found) throw new Error('no key')
  const answer = found.response as AuthenticatorAssertionResponse
  return {
    id: found.id,
    rawId: text(found.rawId),
    type: found.type,
    response: {
      clientDataJSON: text(answer.clientDataJSON),
      authenticatorData: text(answer.authenticatorData),
      signature: text(answer.signature),
      userHandle: answer.userHandle ? text(answer.userHandle) : null,
    },
  }
}

/** Why the device did not answer, in words. */
export const deviceRefused = (error: unknown): string =>
  error instanceof DOMException && error.name === 'InvalidStateError'
    ? 'This device has a key for you already.'
    : 'The device gave no key: it was called off, or took too long.'
