import { beforeEach } from 'vitest'
import { vi } from 'vitest'

// No test has a server to read anew from. The same for every file: they share one module graph.
vi.mock('./shared/queries', async (original) => ({
  ...(await original<typeof import('./shared/queries')>()),
  useRefresh: () => () => Promise.resolve(),
}))

// What one test types is no draft of the next.
beforeEach(() => localStorage.clear())
