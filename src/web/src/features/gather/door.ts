import { answer, api } from '../../api/client'
import type { ImportDoor } from './intake'

/** The moment a file was changed, by the clock of this computer: 2026-06-06T14:30:05. */
function modified(file: File): string {
  const at = new Date(file.lastModified)
  const local = new Date(at.getTime() - at.getTimezoneOffset() * 60_000)
  return local.toISOString().slice(0, 19)
}

/** The server's side of an import into an album. */
export const importDoor = (albumId: string): ImportDoor => ({
  begin: () => answer(api.POST('/api/albums/{albumId}/imports', { params: { path: { albumId } } })),
  send: (id, file, key, signal) =>
    answer(
      api.POST('/api/imports/{id}/files', {
        params: { path: { id }, query: { name: file.name, key, modified: modified(file) } },
        body: file as unknown as string,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { 'Content-Type': 'application/octet-stream' },
        signal,
      }),
    ),
  close: (id) => answer(api.POST('/api/imports/{id}/close', { params: { path: { id } } })),
  cancel: (id) => answer(api.POST('/api/imports/{id}/cancel', { params: { path: { id } } })),
  look: (id) => answer(api.GET('/api/imports/{id}', { params: { path: { id } } })),
})
