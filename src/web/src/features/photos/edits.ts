import { counted } from '../../shared/words'
import { answer, api, type PhotoEdit, type PhotoView, type Verdict } from '../../api/client'
import { useAct } from '../../shared/act'
import { useMarked } from './queries'

/** Decisions about photos: one edit over one or many, with undo. */
export function usePhotoEdits(albumId: () => string) {
  const { act } = useAct(albumId)
  const marked = useMarked()
  return (photos: PhotoView[], edit: PhotoEdit) =>
    act(
      () =>
        answer(
          api.POST('/api/albums/{albumId}/photos/edits', {
            params: { path: { albumId: albumId() } },
            body: { photos: photos.map((p) => ({ id: p.id, revision: p.revision })), edit },
          }),
        ),
      onlyMarks(edit) ? (done) => marked(albumId(), done.photos) : undefined,
    )
}

/** A mark moves no picture to another day: the lists that show it need not be read again. */
export const onlyMarks = (edit: PhotoEdit) => edit.kind === 'judgePhoto' || edit.kind === 'starPhoto'

/** What a single key decides about a picture. */
export const cullKeys: Record<string, PhotoEdit> = {
  k: { kind: 'judgePhoto', verdict: 'keep' },
  m: { kind: 'judgePhoto', verdict: 'maybe' },
  x: { kind: 'judgePhoto', verdict: 'leave' },
  u: { kind: 'judgePhoto', verdict: 'undecided' },
  0: { kind: 'starPhoto', stars: 0 },
  1: { kind: 'starPhoto', stars: 1 },
  2: { kind: 'starPhoto', stars: 2 },
  3: { kind: 'starPhoto', stars: 3 },
}

export const verdictWords: Record<Verdict, string> = {
  undecided: 'not decided',
  keep: 'keep',
  maybe: 'maybe',
  leave: 'left out',
}

/** What a screen reader says of a picture. */
export function photoWords(photo: PhotoView): string {
  const parts = [
    photo.fileName,
    photo.dayLabel ?? 'no date',
    photo.time,
    photo.verdict === 'undecided' ? null : verdictWords[photo.verdict],
    photo.favourite ? counted(photo.favourite, 'star') : null,
    photo.suggestedBest ? 'suggested best of its group' : photo.groupId ? 'one of several alike' : null,
  ]
  return parts.filter(Boolean).join(', ')
}
