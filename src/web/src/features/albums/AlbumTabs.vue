<script setup lang="ts">
import { computed } from 'vue'
import type { AlbumView, UnitView } from '../../api/client'
import { nearestScope, place, tabs, type Room, type Scope, type Tab } from '../../shared/places'
import { counted } from '../../shared/words'
import { useLookOver } from '../lookingOver/queries'
import ScopePicker from './ScopePicker.vue'

/** The one row of tabs, the scope at its right end, and the rooms of the open tab under it. */
const props = defineProps<{
  album: AlbumView
  unit?: UnitView
  unitId: string
  scope: Scope
  tab: Tab
  room?: Room
  undated: number
}>()

/** What is to be looked at in the week or day in hand; the album's is not counted at every step. */
const { data: findings } = useLookOver(
  () => props.album.id,
  () => (props.scope.kind === 'unit' ? { from: props.scope.from, until: props.scope.from } : {}),
  () => props.scope.kind === 'unit',
)

/** One and many of what a tab misses. */
type Things = readonly [one: string, many: string]

const missing = computed<Record<string, { count: number; of: Things } | undefined>>(() => {
  const c = props.scope.kind === 'album' ? undefined : props.unit?.counts
  return {
    gather: { count: props.album.photosWithoutUnit, of: ['photo without a place', 'photos without a place'] },
    tell: c && {
      count: c.cardsUnwritten + c.cardsOver,
      of: ['card without words or with too many', 'cards without words or with too many'],
    },
    count: c && { count: c.piecesShort, of: ['piece beyond its pockets', 'pieces beyond its pockets'] },
    place: c && { count: c.openPockets, of: ['empty pocket', 'empty pockets'] },
    look: {
      count: props.scope.kind === 'unit' ? (findings.value ?? []).filter((f) => !f.accepted).length : 0,
      of: ['finding', 'findings'],
    },
    print: c && { count: c.warnings, of: ['warning before printing', 'warnings before printing'] },
  }
})

const row = computed(() =>
  tabs.map((t) => {
    const m = missing.value[t.key]
    return {
      ...t,
      missing: m?.count ?? 0,
      words: m?.count ? counted(m.count, ...m.of) : undefined,
      to: place(props.album.id, nearestScope(t.rooms, props.scope, props.unitId), t.key),
    }
  }),
)

const rooms = computed(() =>
  props.tab.rooms.map((r) => ({
    ...r,
    to: place(props.album.id, nearestScope([r], props.scope, props.unitId), props.tab.key, r.key),
    note: r.key === 'photos' && props.undated ? counted(props.undated, 'photo') + ' without a date' : undefined,
  })),
)
</script>

<template>
  <div class="tabs">
    <nav class="tab-row" aria-label="Steps of the work">
      <RouterLink
        v-for="t in row"
        :key="t.key"
        :to="t.to"
        class="index-tab"
        :class="{ on: t.key === tab.key }"
        :aria-current="t.key === tab.key ? 'page' : undefined"
        :aria-label="t.words ? `${t.name}: ${t.words}` : t.name"
        :title="t.words"
      >
        {{ t.name }} <span v-if="t.missing" class="missing" aria-hidden="true">{{ t.missing }}</span>
      </RouterLink>
    </nav>
    <ScopePicker :album="album" :unit="unit" :unit-id="unitId" :scope="scope" :tab="tab" :room="room" />
  </div>
  <nav v-if="rooms.length > 1" class="room-line" :aria-label="`Rooms of ${tab.name}`">
    <RouterLink
      v-for="r in rooms"
      :key="r.key"
      :to="r.to"
      class="room-link"
      :class="{ on: r.key === room?.key }"
      :aria-current="r.key === room?.key ? 'page' : undefined"
      >{{ r.name }}<small v-if="r.note" class="room-note">{{ r.note }}</small></RouterLink
    >
  </nav>
</template>

<style scoped>
.tab-row {
  display: flex;
  gap: 0.3rem;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
@media (min-width: 1100px) {
  /* The tabs keep their width; the name of the week beside them is cut short where there is no room for both. */
  .tab-row {
    flex: none;
  }
}
@media (min-width: 1100px) and (max-width: 1400px) {
  .tab-row :deep(.index-tab) {
    padding-inline: 0.75rem;
  }
}
.room-line {
  display: flex;
  gap: 1.2rem;
  padding: 0.3rem 1.2rem;
  background: var(--card);
  border-bottom: 1px solid var(--line);
  overflow-x: auto;
}
.room-link {
  padding: 0.1rem 0 0.15rem;
  border-bottom: 2px solid transparent;
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
}
.room-link:hover {
  border-bottom-color: var(--line);
}
.room-link.on {
  border-bottom-color: var(--zest);
  color: var(--zest-ink);
  font-weight: 600;
}
.room-note {
  margin-left: 0.5em;
  color: var(--warn);
}
</style>
