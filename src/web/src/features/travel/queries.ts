import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api, type TripLegView } from '../../api/client'
import { keys } from '../../shared/queries'
import { asBytes } from '../../shared/upload'

/** The trip log: legs, days with their weather, what was paid. */
export const useTrip = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'trip')),
    queryFn: () => answer(api.GET('/api/albums/{id}/trip', { params: { path: { id: toValue(albumId) } } })),
  })

/** Reads a GPX file and adds its legs. */
export const importTrack = (id: string, file: File) =>
  answer(
    api.POST('/api/albums/{id}/trip/tracks', {
      params: { path: { id }, query: { name: file.name } },
      ...asBytes(file),
    }),
  )

/** Reads a table of weather and notes it for its days. */
export const importWeather = (id: string, file: File) =>
  answer(
    api.POST('/api/albums/{id}/trip/weather', {
      params: { path: { id }, query: { name: file.name } },
      ...asBytes(file),
    }),
  )

/** Adds a leg from picture to picture for each day without one. */
export const addLegsFromPictures = (id: string) =>
  answer(api.POST('/api/albums/{id}/trip/legs-from-pictures', { params: { path: { id } } }))

/** What carries a traveller, as it stands in lists. */
export const modes: readonly [TripLegView['mode'], string][] = [
  ['foot', 'on foot'],
  ['bicycle', 'by bicycle'],
  ['boat', 'by boat'],
  ['train', 'by train'],
  ['car', 'by car'],
  ['plane', 'by plane'],
]

/** Names written one after another with commas. */
export const namesOf = (text: string) =>
  text
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name)
