import { useQuery } from '@tanstack/vue-query'
import { answer, api, type MeView } from '../../api/client'
import { ownPath } from './ownPath'

const me = ['me'] as const

/** Who is asking; the same for the whole visit until somebody signs in or out. */
export const askMe = (): Promise<MeView> => answer(api.GET('/api/me'))

export const useMe = () => useQuery({ queryKey: me, queryFn: askMe, staleTime: Infinity })

/** The account of whoever is signed in. */
export const useAccount = () =>
  useQuery({ queryKey: [...me, 'account'], queryFn: () => answer(api.GET('/api/account')) })

/** Begins anew where it was wanted to go: nothing of another keeper stays in this window. */
export const beginAnew = (to = '/') => window.location.assign(ownPath(to, window.location.origin))
