<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '../../api/client'
import { counted } from '../../shared/words'

/** For whoever runs the program: how its jobs, its disk and its door are. It names no album and no words. */
const { data: seen, error } = useQuery({
  queryKey: ['operations'],
  queryFn: () => answer(api.GET('/api/operations')),
  refetchInterval: 10_000,
})
const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`
const share = computed(() => (seen.value ? Math.round((100 * seen.value.diskFree) / seen.value.diskSize) : 0))
const at = (instant?: string | null) => (instant ? new Date(instant).toLocaleString() : 'never')
</script>

<template>
  <main class="container py-4" data-testid="operations">
    <p><RouterLink to="/">Back to the shelf</RouterLink></p>
    <h1 class="h3">Operations</h1>
    <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <template v-if="seen">
      <section class="room-panel mb-3" aria-labelledby="disk-head">
        <h2 id="disk-head" class="h5">Disk</h2>
        <p v-if="share < 10" class="warning-chip">
          ! Only {{ share }} % of the disk is free. Make room before imports and backups fail.
        </p>
        <p class="mb-0">
          {{ gigabytes(seen.diskFree) }} of {{ gigabytes(seen.diskSize) }} free ({{ share }} %). Originals
          {{ gigabytes(seen.originals) }}, database {{ gigabytes(seen.database) }}.
          {{ counted(seen.accounts, 'account') }}, {{ counted(seen.albums, 'album') }}.
        </p>
      </section>
      <section class="room-panel mb-3" aria-labelledby="jobs-head">
        <h2 id="jobs-head" class="h5">Jobs</h2>
        <table class="table table-sm">
          <thead>
            <tr>
              <th scope="col">Queue</th>
              <th scope="col" class="text-end">Waiting</th>
              <th scope="col" class="text-end">Running</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="q in seen.queues" :key="q.name">
              <td>{{ q.name }}</td>
              <td class="text-end">{{ q.waiting }}</td>
              <td class="text-end">{{ q.running }}</td>
            </tr>
          </tbody>
        </table>
        <p class="mb-1">{{ counted(seen.done, 'job') }} done, {{ seen.failed }} failed.</p>
        <ul v-if="seen.lastFailed.length" class="mb-0">
          <li v-for="(f, i) in seen.lastFailed" :key="i">{{ f.what }}: {{ f.problem }}, {{ at(f.at) }}</li>
        </ul>
      </section>
      <section class="room-panel mb-3" aria-labelledby="workers-head">
        <h2 id="workers-head" class="h5">Workers</h2>
        <p v-if="!seen.workers.length" class="warning-chip mb-0">! Nobody works on jobs. Start a server.</p>
        <ul class="list-unstyled mb-0">
          <li v-for="w in seen.workers" :key="w.name">
            {{ w.name }}: {{ counted(w.workers, 'worker') }} for {{ w.queues.join(', ') }}, heard {{ at(w.heardAt) }}
          </li>
        </ul>
      </section>
      <section class="room-panel" aria-labelledby="refused-head">
        <h2 id="refused-head" class="h5">Refused sign-ins of the last day</h2>
        <p v-if="!seen.refusedSignIns.length" class="mb-0">None.</p>
        <ul class="list-unstyled mb-0">
          <li v-for="(r, i) in seen.refusedSignIns" :key="i">
            {{ r.from }}: {{ r.what }}, {{ counted(r.times, 'time') }}, last {{ at(r.lastAt) }}
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>
