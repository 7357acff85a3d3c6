import { answer, api } from '../../api/client'
import { deviceTime } from '../../shared/dates'
import { pathOf, type ImportDoor } from './intake'
import { asBytes } from '../../shared/upload'

/** The moment a file was changed, by the clock of this computer. */
const modified = (file: File) => deviceTime(new Date(file.lastModified))

/** The server's side of an import into an album. */
export const importDoor = (albumId: string): ImportDoor => ({
  begin: () => answer(api.POST('/api/albums/{albumId}/imports', { params: { path: { albumId } } })),
  send: (id, file, key, signal) =>
    answer(
      api.POST('/api/imports/{id}/files', {
        params: { path: { id }, query: { name: pathOf(file), key, modified: modified(file) } },
        ...asBytes(file),
        signal,
      }),
    ),
  close: (id) => answer(api.POST('/api/imports/{id}/close', { params: { path: { id } } })),
  cancel: (id) => answer(api.POST('/api/imports/{id}/cancel', { params: { path: { id } } })),
  look: (id) => answer(api.GET('/api/imports/{id}', { params: { path: { id } } })),
})
