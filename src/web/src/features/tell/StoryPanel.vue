<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type StoryView, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'
import { useStories } from '../albums/queries'
import StoryEditor from './StoryEditor.vue'

/** The words of a unit before there is any layout: written, pasted, brought along in files. */
const props = defineProps<{ unit: UnitView }>()
const { data: stories } = useStories(
  () => props.unit.albumId,
  () => props.unit.id,
)
const { data: all } = useStories(() => props.unit.albumId, undefined)
const { act } = useAct(() => props.unit.albumId)
const notices = useNotices()
const input = ref<HTMLInputElement>()
const waiting = computed(() => (all.value ?? []).filter((s) => !s.unitId))

const add = () =>
  act(() =>
    answer(
      api.POST('/api/albums/{albumId}/stories', {
        params: { path: { albumId: props.unit.albumId } },
        body: { words: '', title: '', theme: '', author: '', days: [props.unit.firstDay] },
      }),
    ),
  )

async function take(files: FileList | File[] | null) {
  for (const file of files ?? []) {
    const arrived = await act(() =>
      answer(
        api.POST('/api/albums/{albumId}/stories/file', {
          params: { path: { albumId: props.unit.albumId }, query: { name: file.name } },
          body: file as unknown as string,
          bodySerializer: (body) => body as unknown as BodyInit,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    )
    if (arrived?.picturesMissing.length) {
      notices.refused(
        new Error(`${file.name} names pictures that are not in the album: ${arrived.picturesMissing.join(', ')}`),
      )
    }
  }
  if (input.value) input.value.value = ''
}

const toDay = (story: StoryView, day: string) =>
  act(() =>
    answer(
      api.PUT('/api/stories/{id}', {
        params: { path: { id: story.id } },
        body: { revision: story.revision, days: [day] },
      }),
    ),
  )
</script>

<template>
  <section class="mb-3" aria-label="Stories" @dragover.prevent @drop.prevent="take($event.dataTransfer?.files ?? null)">
    <div class="d-flex gap-2 align-items-center flex-wrap mb-2">
      <h3 class="h6 mb-0">Stories</h3>
      <BButton size="sm" variant="primary" @click="add">Write a story</BButton>
      <BButton size="sm" variant="outline-dark" @click="input?.click()">Bring stories along</BButton>
      <input
        ref="input"
        type="file"
        multiple
        accept=".md,.markdown,.txt,.xml,.rss,.atom,.json"
        class="visually-hidden"
        tabindex="-1"
        aria-label="Files with stories"
        data-testid="story-files"
        @change="take(($event.target as HTMLInputElement).files)"
      />
      <span class="form-text m-0">Markdown, plain text, RSS, Atom or JSON Feed; each post goes to its day.</span>
    </div>
    <p v-if="stories && stories.length === 0" class="visually-quiet">
      No stories {{ unit.kind === 'hour' ? 'for this hour' : 'here' }} yet. Settle the words first: they say how much
      room they need.
    </p>
    <StoryEditor v-for="story in stories" :key="story.id" :story="story" :unit="unit" :others="stories ?? []" />
    <details v-if="waiting.length" class="panel border rounded p-3 mt-2">
      <summary>
        {{ waiting.length }} {{ waiting.length === 1 ? 'story' : 'stories' }} without a day in this album
      </summary>
      <ul class="waiting">
        <li v-for="story in waiting" :key="story.id">
          <span>{{ story.title || story.words.slice(0, 80) }}</span>
          <span class="visually-quiet">{{ story.theme || story.dayLabel || 'no day' }}</span>
          <button
            v-for="d in unit.days"
            :key="d.day"
            type="button"
            class="btn btn-sm btn-outline-dark"
            :aria-label="`Put “${story.title || story.words.slice(0, 30)}” on ${d.label}`"
            @click="toDay(story, d.day)"
          >
            {{ d.label }}
          </button>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.waiting {
  margin: 0.5rem 0 0;
  padding: 0;
  list-style: none;
}
.waiting li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  padding: 0.3rem 0;
  border-top: 1px solid var(--line);
}
</style>
