import { useQuery } from '@tanstack/vue-query'
import { answer, api } from '../../api/client'

/** The keeper's printers, and what was measured of each. */
export const usePrinters = () => useQuery({ queryKey: ['printers'], queryFn: () => answer(api.GET('/api/printers')) })
