<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, ref } from 'vue'
import { answer, api, type StoryView, type UnitView } from '../../api/client'
import { editAlbum, editStories } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'
import { useAlbumWords, useStories } from './queries'
import StoryEditor from './StoryEditor.vue'
import { asBytes } from '../../shared/upload'

/** The words of a unit before there is any layout: written, pasted, brought along in files. */
const props = defineProps<{ unit: UnitView }>()
const { data: stories } = useStories(
  () => props.unit.albumId,
  () => props.unit.id,
)
const { data: all } = useStories(() => props.unit.albumId, undefined)
const { act } = useAct(() => props.unit.albumId)
const notices = useNotices()
const { data: album } = useAlbumWords(() => props.unit.albumId)
const input = ref<HTMLInputElement>()
const byTheme = computed(() => album.value?.school === 'byTheme')

/** Day by day, or theme by theme, each with its stories. */
const groups = computed(() => {
  const found = new Map<string, StoryView[]>()
  for (const story of stories.value ?? []) {
    const name = byTheme.value ? story.theme || 'Without a theme' : (story.dayLabel ?? 'Without a day')
    found.set(name, [...(found.get(name) ?? []), story])
  }
  return [...found].map(([name, list]) => ({ name, list }))
})

const choose = (school: 'byDay' | 'byTheme') =>
  act(() => editAlbum(props.unit.albumId, { kind: 'tellStories', revision: album.value!.revision, school }))

/** All the words of one theme as one story, so that they flow over its cards together. */
async function joinAll(list: StoryView[]) {
  let first = list[0]!
  for (const other of list.slice(1)) {
    const done = await act(() =>
      editStories(props.unit.albumId, {
        kind: 'mergeStories',
        storyId: first.id,
        revision: first.revision,
        otherId: other.id,
      }),
    )
    const now = stories.value?.find((s) => s.id === first.id)
    if (!done || !now) return
    first = now
  }
}
const waiting = computed(() => (all.value ?? []).filter((s) => !s.unitId))

const add = (theme = '') =>
  act(() =>
    editStories(props.unit.albumId, {
      kind: 'newStory',
      words: '',
      title: '',
      theme,
      author: '',
      days: [props.unit.firstDay],
      hour: props.unit.hour,
    }),
  )

async function take(files: FileList | File[] | null) {
  for (const file of files ?? []) {
    const arrived = await act(() =>
      answer(
        api.POST('/api/albums/{albumId}/stories/file', {
          params: { path: { albumId: props.unit.albumId }, query: { name: file.name } },
          ...asBytes(file),
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
    editStories(props.unit.albumId, {
      kind: 'dateStory',
      storyId: story.id,
      revision: story.revision,
      days: [day],
      hour: props.unit.hour,
    }),
  )
</script>

<template>
  <section class="mb-3" aria-label="Stories" @dragover.prevent @drop.prevent="take($event.dataTransfer?.files ?? null)">
    <div class="d-flex gap-2 align-items-center flex-wrap mb-2">
      <h3 class="h6 mb-0">Stories</h3>
      <BButton size="sm" variant="primary" @click="add()">Write a story</BButton>
      <BButton size="sm" variant="outline-dark" @click="input?.click()">Import stories</BButton>
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
      <div
        v-if="album && unit.days.length > 1"
        class="btn-group btn-group-sm"
        role="group"
        aria-label="Tell by day or theme"
      >
        <button
          type="button"
          class="btn btn-outline-dark"
          :aria-pressed="!byTheme"
          :class="{ active: !byTheme }"
          @click="choose('byDay')"
        >
          By day
        </button>
        <button
          type="button"
          class="btn btn-outline-dark"
          :aria-pressed="byTheme"
          :class="{ active: byTheme }"
          @click="choose('byTheme')"
        >
          By theme
        </button>
      </div>
      <datalist id="people">
        <option v-for="p in album?.people" :key="p.name" :value="p.name"></option>
      </datalist>
      <datalist id="themes">
        <option v-for="t in album?.themes" :key="t" :value="t"></option>
      </datalist>
      <span class="form-text m-0">Markdown, plain text, RSS, Atom or JSON Feed; each post goes to its day.</span>
    </div>
    <p v-if="stories && stories.length === 0" class="visually-quiet">
      No stories {{ unit.kind === 'hour' ? 'for this hour' : 'here' }} yet. Settle the words first: they say how much
      room they need.
    </p>
    <template v-for="group in groups" :key="group.name">
      <h4 v-if="unit.days.length > 1" class="group">
        {{ group.name }}
        <button
          v-if="byTheme && group.list.length > 1 && group.list[0]!.theme"
          type="button"
          class="btn btn-sm btn-outline-dark ms-2"
          @click="joinAll(group.list)"
        >
          Merge its {{ group.list.length }} stories into one
        </button>
      </h4>
      <StoryEditor v-for="story in group.list" :key="story.id" :story="story" :unit="unit" :others="stories ?? []" />
    </template>
    <details v-if="waiting.length" class="panel border rounded p-3 mt-2">
      <summary>{{ counted(waiting.length, 'story', 'stories') }} without a day in this album</summary>
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
.group {
  margin: 0.6rem 0 0.3rem;
  font-size: 0.95rem;
}
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
