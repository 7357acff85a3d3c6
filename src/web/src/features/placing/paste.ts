import { answer, api, Refusal } from '../../api/client'
import { deviceTime } from '../../shared/dates'
import { asBytes } from '../../shared/upload'

/** The pictures of what was copied elsewhere. */
export const picturesIn = (transfer: DataTransfer | null): File[] =>
  [...(transfer?.files ?? [])].filter((file) => file.type.startsWith('image/'))

/** A name that is not that of another pasted picture: what is copied has none of its own. */
export const pastedName = (file: File, now: Date) =>
  file.name && file.name !== 'image.png' ? file.name : `pasted ${deviceTime(now).replaceAll(':', '.')}.png`

/**
 * Adds a pasted picture to the album and gives it a day if it has none; gives the photo when it belongs to the week or
 * day. Throws a refusal when the file is no picture, or says by its own date that it belongs elsewhere.
 */
export async function addPasted(albumId: string, file: File, unitId: string, day: string): Promise<string> {
  const outcome = await answer(
    api.POST('/api/albums/{albumId}/photos', {
      params: { path: { albumId }, query: { name: pastedName(file, new Date()) } },
      ...asBytes(file),
    }),
  )
  if (!outcome.photoId) throw new Refusal(outcome.detail, 422)
  const { photo } = await answer(api.GET('/api/photos/{id}', { params: { path: { id: outcome.photoId } } }))
  if (photo.unitId && photo.unitId !== unitId) {
    throw new Refusal(`Added ${photo.fileName} to the week or day it was taken in, as the picture itself says.`, 409)
  }
  if (!photo.unitId) {
    await answer(
      api.POST('/api/albums/{albumId}/photos/edits', {
        params: { path: { albumId } },
        body: { photos: [{ id: photo.id, revision: photo.revision }], edit: { kind: 'datePhoto', day } },
      }),
    )
  }
  return outcome.photoId
}
