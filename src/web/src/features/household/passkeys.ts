/**
 * Passkeys of the browser (W3C Web Authentication). They belong to a name: a page that is opened by a bare address,
 * such as 127.0.0.1, has none.
 */
export const passkeysHere = () => window.isSecureContext && 'PublicKeyCredential' in window && !bareAddress()

/** The same page by a name, where it has one; null where there is nothing to be done in the address bar. */
export const byName = () =>
  location.hostname === '127.0.0.1' || location.hostname === '[::1]'
    ? `${location.protocol}//localhost${location.port ? `:${location.port}` : ''}`
    : null

const bareAddress = () => /^[\d.]+$|^\[/.test(location.hostname)

/** Has the device make one; JSON for the server. */
export async function makePasskey(options: string): Promise<string> {
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialCreationOptionsJSON,
  )
  return JSON.stringify(await told(navigator.credentials.create({ publicKey })))
}

/** Has the device prove one; JSON for the server. */
export async function provePasskey(options: string): Promise<string> {
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialRequestOptionsJSON,
  )
  return JSON.stringify(await told(navigator.credentials.get({ publicKey })))
}

/** Browsers give one error for everything, so that a page learns nothing about the device. */
async function told(asked: Promise<Credential | null>): Promise<Credential> {
  try {
    const credential = await asked
    if (credential) return credential
  } catch (refused) {
    if ((refused as DOMException).name === 'InvalidStateError')
      throw new Error('This device has a passkey of yours already. Nothing was changed.', { cause: refused })
    if ((refused as DOMException).name !== 'NotAllowedError') throw refused
  }
  throw new Error('The device gave no passkey, or you stopped it. Nothing was changed: try again.')
}
