import createClient from 'openapi-fetch'
import type { components, operations, paths } from './schema'

type Schemas = components['schemas']
export type AlbumEdit = Schemas['AlbumEdit']
export type AlbumEditAnswer = Schemas['AlbumEditAnswer']
export type AlbumFinding = Schemas['AlbumFinding']
export type AlbumPage = Schemas['AlbumPage']
export type BookView = Schemas['BookView']
export type BackupView = Schemas['BackupView']
export type RestoreView = Schemas['RestoreView']
export type BulkView = Schemas['BulkView']
export type PaceView = Schemas['PaceView']
export type ExpenseView = Schemas['ExpenseView']
export type FoundOnPhoto = Schemas['FoundOnPhoto']
export type Money = Schemas['Money']
export type ShoppingLine = Schemas['ShoppingLine']
export type StashAnswer = Schemas['StashAnswer']
export type StashEdit = Schemas['StashEdit']
export type StashEntry = Schemas['StashEntry']
export type StashItemView = Schemas['StashItemView']
export type StashProposalView = Schemas['StashProposalView']
export type UnitStashView = Schemas['UnitStashView']
export type PasskeyView = components['schemas']['PasskeyView']
export type MeView = Schemas['MeView']
export type AlbumRole = Schemas['AlbumRole']
export type AskedView = Schemas['AskedView']
export type CommentView = Schemas['CommentView']
export type CompanionView = Schemas['CompanionView']
export type ContributionView = Schemas['ContributionView']
export type ContributorLinkView = Schemas['ContributorLinkView']
export type NewsView = Omit<Schemas['NewsView'], 'window'> & { window?: string | null }
export type SharingView = Schemas['SharingView']
export type TripDayView = Schemas['TripDayView']
export type TripLegView = Schemas['TripLegView']
export type TripView = Schemas['TripView']
export type RingsView = Schemas['RingsView']
export type VolumeView = Schemas['VolumeView']
export type TuckFace = Schemas['TuckFace']
export type TuckPiece = Schemas['TuckPiece']
export type TuckView = Schemas['TuckView']
export type PrinterView = Schemas['PrinterView']
export type PieceStanding = Schemas['PieceStanding']
export type PlacesOnCard = Schemas['PlacesOnCard']
export type StretchPlacingView = Schemas['StretchPlacingView']
export type AlbumSummary = Schemas['AlbumSummary']
export type AlbumView = Schemas['AlbumView']
export type AlbumWordsView = Schemas['AlbumWordsView']
export type CaptionAnswer = Schemas['CaptionAnswer']
export type WrittenCaption = Schemas['WrittenCaption']
export type WrittenFinish = Schemas['WrittenFinish']
export type WrittenComposition = Schemas['WrittenComposition']
export type CardDueView = Schemas['CardDueView']
export type NoteView = Schemas['NoteView']
export type SheetOfLettersView = Schemas['SheetOfLettersView']
export type StyleTry = Schemas['StyleTry']
export type StyleView = Schemas['StyleView']
export type OverviewView = Schemas['OverviewView']
export type TitleTry = Schemas['TitleTry']
export type UnitWordsView = Schemas['UnitWordsView']
export type Catalog = Schemas['Catalog']
export type DesignView = Schemas['DesignView']
export type BinderLeaf = Schemas['BinderLeaf']
export type CollageView = Schemas['CollageView']
export type CountView = Schemas['CountView']
export type DraftView = Schemas['DraftView']
export type FormulaView = Schemas['FormulaView']
export type LeafMake = Schemas['LeafMake']
export type LeafDetail = Schemas['LeafDetail']
export type LeafFaceDetail = Schemas['LeafFaceDetail']
export type OwnDesignView = Schemas['OwnDesignView']
export type ProtectorView = Schemas['ProtectorView']
export type LeafView = Schemas['LeafView']
export type WayToFit = Schemas['WayToFit']
export type PageChoice = Schemas['PageChoice']
export type PageSearchView = Schemas['PageSearchView']
export type EditAnswer = Schemas['EditAnswer']
export type UnitEdit = Schemas['UnitEdit']
export type FaceView = Schemas['FaceView']
export type FitAnswer = Schemas['FitAnswer']
export type BoxView = Schemas['BoxView']
export type CardSetting = Schemas['CardSetting']
export type CalendarView = Schemas['CalendarView']
export type CameraView = Schemas['CameraView']
export type ImportLine = Schemas['ImportLine']
export type ImportView = Schemas['ImportView']
export type KeepsakeInfo = Schemas['KeepsakeInfo']
export type KeepsakeView = Schemas['KeepsakeView']
export type OverviewUnit = Schemas['OverviewUnit']
export type PhotoEdit = Schemas['PhotoEdit']
export type PhotoDetail = Schemas['PhotoDetail']
export type PhotoFilter = NonNullable<operations['listPhotos']['parameters']['query']>
export type SeriesView = Schemas['SeriesView']
export type StoriesArrived = Schemas['StoriesArrived']
export type RoomForWords = Schemas['RoomForWords']
export type DesignEdit = Schemas['DesignEdit']
export type StoryEdit = Schemas['StoryEdit']
export type StoryView = Schemas['StoryView']
export type StayView = Schemas['StayView']
export type Verdict = Schemas['Verdict']
export type PhotoPage = Schemas['PhotoPage']
export type PhotoView = Schemas['PhotoView']
export type FindingView = Schemas['FindingView']
export type PersonView = Schemas['PersonView']
export type RemedyView = Schemas['RemedyView']
export type PieceView = Schemas['PieceView']
export type VideoView = Schemas['VideoView']
export type WrittenBoughtCard = Schemas['WrittenBoughtCard']
export type PlacingWeights = Schemas['PlacingWeights']
export type PocketOffer = Schemas['PocketOffer']
export type PocketView = Schemas['PocketView']
export type PrintJobView = Schemas['PrintJobView']
export type LabOrderView = Schemas['LabOrderView']
export type LeftoverView = Schemas['LeftoverView']
export type PaperOnHandView = Schemas['PaperOnHandView']
export type PrintOptions = Schemas['PrintOptions']
export type SheetView = Schemas['SheetView']
export type PrintPlanView = Schemas['PrintPlanView']
export type PrintRequest = Schemas['PrintRequest']
export type UnitSummary = Schemas['UnitSummary']
export type UnitView = Schemas['UnitView']
export type WayView = Schemas['WayView']

/** The key of this window: it hears no news of what it does itself. */
export const windowId = newKey()

function newKey(): string {
  // randomUUID is there only where the page is safe (TLS or this machine).
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}

export const api = createClient<paths>({ baseUrl: '', headers: { 'X-Zesty-Window': windowId } })

/** What the server refused, in its own words: what happened, what was kept, what to do. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly yours?: string,
    readonly theirs?: string[],
  ) {
    super(message)
  }

  /** Whether it may have been done all the same: the answer never came, or not from the server itself. */
  get mayBeDone() {
    return this.status === 0 || this.status >= 502
  }
}

/** A proxy speaks where a server did not: it may have died with the answer, after it had done what was asked. */
const wordless = (status: number) =>
  status >= 502
    ? `The answer was lost on the way (${status}). It may have been done or not: look, and do it again if it was not.`
    : `The server answered with ${status}. Nothing was changed; try again.`

/** Unwraps an answer, or throws the server's refusal. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await call
  } catch {
    throw new Refusal(
      'The server does not answer. What you saved is safe; start it again with ./start and repeat the last step.',
      0,
    )
  }
  const { data, error, response } = result
  // The session has ended, or there never was one: the door knows where it was wanted to go.
  if (response.status === 401 && !/^\/(sign-in|welcome|join|write)/.test(window.location.pathname)) {
    window.location.assign(`/sign-in?to=${encodeURIComponent(window.location.pathname + window.location.search)}`)
  }
  if (error !== undefined || !response.ok) {
    const problem = (error ?? {}) as { detail?: string; title?: string; yours?: string; theirs?: string[] }
    throw new Refusal(
      problem.detail ?? problem.title ?? wordless(response.status),
      response.status,
      problem.yours,
      problem.theirs,
    )
  }
  return data as T
}
