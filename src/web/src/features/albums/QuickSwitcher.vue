<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter, type RouteLocationRaw } from 'vue-router'
import { answer, api, type AlbumView } from '../../api/client'
import { albumPlace, nearestScope, place, roomOf, tabOf, tabs, unitPlace, type Scope } from '../../shared/places'
import { keys } from '../../shared/queries'

/** Goes anywhere by a few letters: weeks, days, dates, photos, stories, rooms, and what can be done here. */
export interface Action {
  name: string
  run: () => unknown
}

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ album: AlbumView; scope: Scope; unitId: string; actions: readonly Action[] }>()
const router = useRouter()
const words = ref('')
const settled = refDebounced(words, 120)
const at = ref(0)
const field = ref<HTMLInputElement>()
const list = ref<HTMLElement>()

const found = useQuery({
  queryKey: computed(() => keys.of(props.album.id, 'find', settled.value.trim())),
  queryFn: () =>
    answer(
      api.GET('/api/albums/{albumId}/find', {
        params: { path: { albumId: props.album.id }, query: { words: settled.value.trim() } },
      }),
    ),
  enabled: computed(() => open.value && settled.value.trim() !== ''),
  placeholderData: keepPreviousData,
})

interface Hit {
  key: string
  kind: string
  title: string
  note?: string
  run: () => unknown
}

const kinds = { unit: 'Week or day', photo: 'Photo', story: 'Story' } as const
const goTo = (to: RouteLocationRaw) => () => router.push(to)

const rooms = computed<Hit[]>(() =>
  tabs.flatMap((tab) =>
    tab.rooms.map((room) => ({
      key: `${tab.key}/${room.key}`,
      kind: 'Go to',
      title: tab.rooms.length === 1 ? tab.name : `${tab.name}: ${room.name}`,
      run: goTo(place(props.album.id, nearestScope([room], props.scope, props.unitId), tab.key, room.key)),
    })),
  ),
)
const actions = computed<Hit[]>(() =>
  props.actions.map((a) => ({ key: a.name, kind: 'Do', title: a.name, run: a.run })),
)

const hits = computed<Hit[]>(() => {
  const asked = words.value.trim().toLowerCase()
  const own = [...rooms.value, ...actions.value]
  if (!asked) return own
  const named = own
    .map((hit) => ({ hit, rank: rankOf(hit.title.toLowerCase(), asked) }))
    .filter((n) => n.rank < 4)
    .sort((a, b) => a.rank - b.rank)
  const things = (found.data.value ?? []).map((f): Hit => {
    const { unitId } = f
    const to =
      f.kind === 'photo'
        ? {
            ...((unitId
              ? unitPlace(props.album.id, unitId, 'gather', 'photos')
              : albumPlace(props.album.id, 'gather', 'photos')) as object),
            query: { photo: f.id },
          }
        : f.kind === 'story'
          ? unitId
            ? unitPlace(props.album.id, unitId, 'tell', 'cards')
            : place(
                props.album.id,
                nearestScope([roomOf(tabOf('tell'), 'cards')!], props.scope, props.unitId),
                'tell',
                'cards',
              )
          : unitPlace(props.album.id, f.id, 'place')
    return { key: f.id, kind: kinds[f.kind], title: f.title, note: f.note, run: goTo(to) }
  })
  // What is called so by its beginning stands before weeks and photos, anything else after them.
  const [first, last] = [named.filter((n) => n.rank < 2), named.filter((n) => n.rank >= 2)]
  return [...first.map((n) => n.hit), ...things, ...last.map((n) => n.hit)]
})

/** 0: the name itself; 1: its beginning; 2: the beginning of one of its words; 3: somewhere in it; 4: not in it. */
function rankOf(title: string, asked: string) {
  if (title === asked) return 0
  if (title.startsWith(asked)) return 1
  const found = title.indexOf(asked)
  if (found < 0) return 4
  return title.split(/[\s:]+/).some((word) => word.startsWith(asked)) ? 2 : 3
}

watch(open, (now) => {
  if (now) [words.value, at.value] = ['', 0]
})
watch(hits, () => (at.value = Math.min(at.value, Math.max(0, hits.value.length - 1))))
watch(words, () => (at.value = 0))

async function move(step: number) {
  at.value = (at.value + step + hits.value.length) % Math.max(1, hits.value.length)
  await nextTick()
  list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView?.({ block: 'nearest' })
}

function choose(hit: Hit | undefined) {
  if (!hit) return
  open.value = false
  void hit.run()
}

/** What was typed last may still be on its way: the choice waits for it. */
async function enter() {
  if (words.value.trim() !== settled.value.trim() || found.isFetching.value) await found.refetch()
  choose(hits.value[at.value])
}
</script>

<template>
  <BModal v-model="open" title="Find" title-class="h5 mb-0" title-tag="h2" no-footer size="lg" @shown="field?.focus()">
    <input
      ref="field"
      v-model="words"
      class="form-control"
      role="combobox"
      aria-label="Find in this album"
      aria-autocomplete="list"
      aria-controls="found-list"
      aria-expanded="true"
      :aria-activedescendant="hits.length ? `found-${at}` : undefined"
      placeholder="A week, a date such as 14 May, a photo, words of a story, a room"
      autocomplete="off"
      maxlength="100"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="enter"
    />
    <ul id="found-list" ref="list" class="hits" role="listbox" aria-label="What was found">
      <li
        v-for="(hit, i) in hits"
        :id="`found-${i}`"
        :key="hit.key"
        role="option"
        :aria-selected="i === at"
        class="hit"
        :class="{ on: i === at }"
        @click="choose(hit)"
      >
        <span class="kind">{{ hit.kind }}</span>
        <span class="title">{{ hit.title }}</span>
        <span v-if="hit.note" class="note">{{ hit.note }}</span>
      </li>
    </ul>
    <p v-if="hits.length === 0" class="visually-quiet mt-2 mb-0" role="status">
      {{ found.isFetching.value ? 'Looking …' : 'Nothing found. Try fewer letters, or a date such as 14 May.' }}
    </p>
  </BModal>
</template>

<style scoped>
.hits {
  max-height: 60vh;
  margin: 0.6rem 0 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
.hit {
  display: grid;
  grid-template-columns: 6.5rem auto 1fr;
  gap: 0.7rem;
  align-items: baseline;
  padding: 0.35rem 0.6rem;
  border-radius: 0.4rem;
  cursor: pointer;
}
.hit.on {
  background: var(--zest-pale);
}
.kind,
.note {
  color: var(--ink-soft);
  font-size: 0.85rem;
}
.title {
  font-weight: 600;
}
.note {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.on .kind,
.on .note {
  color: var(--ink-mid);
}
</style>
