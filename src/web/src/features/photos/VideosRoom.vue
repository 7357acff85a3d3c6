<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type VideoView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { keys, useRefresh } from '../../shared/queries'
import { counted } from '../../shared/words'
import { useVideos } from './queries'
import VideoFrame from './VideoFrame.vue'

/** Videos and the frames that become pictures. */
const props = defineProps<{ album: AlbumView }>()
const { data: videos } = useVideos(() => props.album.id)
const notices = useNotices()
const client = useQueryClient()
const refresh = useRefresh()

const openId = ref<string | null>(null)
const open = computed(() => videos.value?.find((v) => v.id === openId.value) ?? videos.value?.[0] ?? null)
const chosen = ref<Record<string, number[]>>({})
const picked = computed(() => (open.value ? (chosen.value[open.value.id] ?? []) : []))
const busy = ref(false)

function toggle(at: number) {
  if (!open.value) return
  const now = picked.value
  chosen.value = {
    ...chosen.value,
    [open.value.id]: now.includes(at) ? now.filter((p) => p !== at) : [...now, at].sort((a, b) => a - b),
  }
}

async function act(work: () => Promise<string>) {
  if (busy.value) return
  busy.value = true
  try {
    notices.done(await work())
  } catch (error) {
    notices.refused(error)
  } finally {
    busy.value = false
    await refresh(props.album.id)
  }
}

const take = (video: VideoView) =>
  act(async () => {
    const outcomes = await answer(
      api.POST('/api/videos/{id}/frames', {
        params: { path: { id: video.id } },
        body: { positions: picked.value },
      }),
    )
    chosen.value = { ...chosen.value, [video.id]: [] }
    const added = outcomes.filter((o) => o.status === 'added')
    return added.length
      ? `Added ${counted(added.length, 'picture')}: ${added[0]!.detail}`
      : 'These frames are in the album already.'
  })

const keep = (video: VideoView) =>
  act(async () => {
    await answer(api.POST('/api/videos/{id}/keep', { params: { path: { id: video.id } }, body: { keep: !video.kept } }))
    return video.kept ? 'The video is not kept with the album' : 'The video is kept with the album'
  })

const remove = (video: VideoView) =>
  act(async () => {
    await answer(api.DELETE('/api/videos/{id}', { params: { path: { id: video.id } } }))
    await client.invalidateQueries({ queryKey: keys.of(props.album.id, 'videos') })
    return `Removed the video ${video.fileName}; its pictures stay in the album`
  })

const length = (ms: number) => `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, '0')}`
</script>

<template>
  <div class="room" data-testid="videos-room">
    <p v-if="videos && videos.length === 0" class="room-panel">
      On days when only a video was taken, frames of it stand in for pictures. Add an MP4, MOV, MKV, WebM or AVI file
      with the photos, and choose the frames here.
    </p>
    <div v-if="open" class="d-flex flex-wrap gap-3">
      <nav v-if="videos && videos.length > 1" class="list" aria-label="Videos">
        <button
          v-for="v in videos"
          :key="v.id"
          type="button"
          class="btn btn-sm btn-outline-dark text-start"
          :aria-pressed="v.id === open.id"
          @click="openId = v.id"
        >
          {{ v.fileName }}<br /><small>{{ v.started ?? 'no date' }}</small>
        </button>
      </nav>
      <section class="room-panel flex-grow-1" :aria-label="open.fileName">
        <h2 class="h5 mb-1">{{ open.fileName }}</h2>
        <p class="form-text mt-0">
          {{ length(open.milliseconds) }} long, {{ open.width }} × {{ open.height }} pixels,
          {{ open.started ? `begun ${open.started}` : 'no date in the file'
          }}{{ open.camera ? `, ${open.camera}` : '' }}
        </p>
        <VideoFrame :key="open.id" :video="open" :chosen="picked" @toggle="toggle" />
        <div class="d-flex flex-wrap gap-2 mt-3">
          <BButton variant="primary" :disabled="picked.length === 0 || busy" @click="take(open)"
            >Add {{ picked.length ? counted(picked.length, 'picture') : 'pictures' }} to the album</BButton
          >
          <BButton variant="outline-dark" :aria-pressed="open.kept" :disabled="busy" @click="keep(open)">{{
            open.kept ? 'Kept with the album' : 'Keep the video'
          }}</BButton>
          <BButton variant="outline-dark" :disabled="busy" @click="remove(open)">Remove the video</BButton>
        </div>
        <p class="form-text mb-0">
          <template v-if="open.goesOn">The video goes by itself on {{ open.goesOn }} unless you keep it. </template
          >Removing a video leaves the pictures that were taken from it.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 0.4rem;
  align-content: start;
}
</style>
