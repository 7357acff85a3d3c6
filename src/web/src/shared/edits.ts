import { answer, api, type AlbumEdit } from '../api/client'

/** Does an edit of an album, or with `preview` only says what it would do. */
export const editAlbum = (id: string, edit: AlbumEdit, preview = false) =>
  answer(api.POST('/api/albums/{id}/edits', { params: { path: { id }, query: { preview } }, body: edit }))
