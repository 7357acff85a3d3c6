/**
 * Where somebody wanted to go before the sign-in, as a path of this program; the shelf for anything else. Browsers read
 * backslashes as slashes and pass over tabs and line ends, so the address is read as they do.
 */
export function ownPath(wanted: unknown, origin: string): string {
  if (typeof wanted !== 'string' || !wanted.startsWith('/')) return '/'
  try {
    const to = new URL(wanted, origin)
    return to.origin === origin && !to.pathname.startsWith('//') ? to.pathname + to.search + to.hash : '/'
  } catch {
    return '/'
  }
}
