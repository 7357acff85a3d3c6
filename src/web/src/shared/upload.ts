/** Sends a file as it is, as the body of a request. */
export const asBytes = (file: Blob, type = 'application/octet-stream') => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as BodyInit,
  headers: { 'Content-Type': type },
})
