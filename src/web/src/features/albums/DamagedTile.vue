<script setup lang="ts">
import { ref } from 'vue'
import { answer, api, type AlbumSummary } from '../../api/client'
import { useBusy } from '../../shared/busy'
import { untilEnded } from '../../shared/jobs'

/** An album on the shelf that cannot be opened: what is there of it can be taken out. */
const props = defineProps<{ album: AlbumSummary }>()
defineEmits<{ away: [] }>()
const { busy, run } = useBusy()
const file = ref('')
const said = ref('')

const write = () =>
  run(async () => {
    file.value = ''
    const body = { requestKey: crypto.randomUUID(), albumIds: [props.album.id] }
    const ended = await untilEnded(
      await answer(api.POST('/api/backups', { body })),
      () => answer(api.GET('/api/backups/{id}', { params: { path: { id: begun.id } } })),
      (now) => {
        begun = now
        said.value = now.state === 'running' ? `Writing: ${now.filesDone} of ${now.filesTotal} files` : ''
      },
    )
    if (ended.state === 'done') file.value = `/api/backups/${ended.id}/file`
    said.value = ended.problem ?? ended.report.join(' ')
  })
let begun: { id: string } = { id: '' }
</script>

<template>
  <article class="panel border rounded p-3" :aria-label="album.name" data-testid="damaged-album">
    <h2 class="h4 mb-1">{{ album.name }}</h2>
    <p class="warning-chip d-inline-block" role="alert">! {{ album.problem }}</p>
    <p v-if="said" role="status" class="mb-2">{{ said }}</p>
    <div class="d-flex flex-wrap gap-2">
      <a v-if="file" :href="file" class="btn btn-sm btn-primary" download>Save the bundle</a>
      <BButton v-else-if="album.role === 'owner'" size="sm" variant="outline-dark" :disabled="busy" @click="write"
        >Export as it is</BButton
      >
      <BButton size="sm" variant="outline-dark" @click="$emit('away')">{{
        album.role === 'owner' ? 'Put away' : 'Leave'
      }}</BButton>
    </div>
  </article>
</template>
