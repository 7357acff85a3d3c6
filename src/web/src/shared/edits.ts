import {
  answer,
  api,
  type AlbumEdit,
  type DesignEdit,
  type StashEdit,
  type StoryEdit,
  type UnitEdit,
} from '../api/client'

/** Does an edit of an album, or with `preview` only says what it would do. */
export const editAlbum = (id: string, edit: AlbumEdit, preview = false) =>
  answer(api.POST('/api/albums/{id}/edits', { params: { path: { id }, query: { preview } }, body: edit }))

/** Does an edit of a week or day from a screen that does not show it whole. */
export const editUnit = (id: string, edit: UnitEdit) =>
  answer(api.POST('/api/units/{id}/edits', { params: { path: { id } }, body: edit }))

/** Does an edit of an album's stories. */
export const editStories = (albumId: string, edit: StoryEdit) =>
  answer(api.POST('/api/albums/{albumId}/stories/edits', { params: { path: { albumId } }, body: edit }))

/** Does an edit of the keeper's collection of page designs. */
export const editDesigns = (edit: DesignEdit) => answer(api.POST('/api/designs/edits', { body: edit }))

/** Does an edit of the keeper's stash. */
export const editStash = (edit: StashEdit) => answer(api.POST('/api/stash/edits', { body: edit }))
