<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { AlbumView, UnitView } from '../../api/client'
import { firstRoom, place, type Room, type Scope, type ScopeKind, type Tab } from '../../shared/places'
import UnitMenu from '../dates/UnitMenu.vue'

/** What the tab looks at: this week or day, a stretch of them, or the whole album. */
const props = defineProps<{
  album: AlbumView
  unit?: UnitView
  unitId: string
  scope: Scope
  tab: Tab
  room?: Room
}>()
const router = useRouter()
const units = computed(() => props.album.units)
const kind = computed(
  () => ({ weekly: 'week', trip: 'day', documentedDay: 'hour', countdown: 'day' })[props.album.kind],
)

/** A new stretch takes the open week or day and the three after it. */
const stretch = computed<Scope>(() => {
  if (props.scope.kind === 'stretch') return props.scope
  const at = Math.max(
    0,
    units.value.findIndex((u) => u.id === props.unitId),
  )
  const last = Math.min(at + 3, units.value.length - 1)
  const first = Math.min(at, Math.max(0, last - 1))
  return { kind: 'stretch', from: units.value[first]!.id, until: units.value[last]!.id }
})

const choices = computed(() => {
  const all: { kind: ScopeKind; name: string; scope: Scope }[] = [
    { kind: 'unit', name: `this ${kind.value}`, scope: { kind: 'unit', from: props.unitId } },
    { kind: 'stretch', name: 'a stretch', scope: stretch.value },
    { kind: 'album', name: 'whole album', scope: { kind: 'album' } },
  ]
  return all
    .filter((c) => props.tab.rooms.some((r) => r.scopes.includes(c.kind)))
    .filter((c) => c.kind !== 'stretch' || units.value.length > 1)
    .map((c) => {
      const room = props.room?.scopes.includes(c.kind) ? props.room : firstRoom(props.tab, c.kind)
      return { ...c, to: place(props.album.id, c.scope, props.tab.key, room.key) }
    })
})

/** Either end may be chosen first: the earlier one is always where it begins. */
function choose(end: 'from' | 'until', id: string) {
  if (props.scope.kind !== 'stretch') return
  const ends = { from: props.scope.from, until: props.scope.until, [end]: id }
  const at = (unitId: string) => units.value.findIndex((u) => u.id === unitId)
  const [from, until] = [ends.from, ends.until].sort((a, b) => at(a) - at(b)) as [string, string]
  const scope: Scope = from === until ? { kind: 'unit', from } : { kind: 'stretch', from, until }
  void router.push(place(props.album.id, scope, props.tab.key, scope.kind === 'unit' ? undefined : props.room?.key))
}
</script>

<template>
  <nav class="scope" aria-label="What this step looks at">
    <UnitMenu v-if="scope.kind === 'unit' && unit" :unit="unit" :album="album" />
    <div v-else-if="scope.kind === 'stretch'" class="ends">
      <BFormSelect
        :model-value="scope.from"
        size="sm"
        aria-label="The stretch begins with"
        @update:model-value="choose('from', $event as string)"
      >
        <option v-for="u in units" :key="u.id" :value="u.id">{{ u.title }}</option>
      </BFormSelect>
      <span>to</span>
      <BFormSelect
        :model-value="scope.until"
        size="sm"
        aria-label="The stretch ends with"
        @update:model-value="choose('until', $event as string)"
      >
        <option v-for="u in units" :key="u.id" :value="u.id">{{ u.title }}</option>
      </BFormSelect>
    </div>
    <div v-if="choices.length > 1" class="choices">
      <RouterLink
        v-for="c in choices"
        :key="c.kind"
        :to="c.to"
        :class="{ on: c.kind === scope.kind }"
        :aria-current="c.kind === scope.kind ? 'true' : undefined"
        >{{ c.name }}</RouterLink
      >
    </div>
  </nav>
</template>

<style scoped>
.scope {
  flex: 0 1 auto;
  min-width: 0;
  display: flex;
  align-items: baseline;
  gap: 0.9rem;
  margin-left: auto;
  padding-bottom: 0.5rem;
  white-space: nowrap;
  max-width: 100%;
  overflow-x: auto;
  scrollbar-width: none;
}
@media (max-width: 800px) {
  .scope {
    margin-left: 0;
  }
}
.ends {
  display: flex;
  flex: none;
  align-items: center;
  gap: 0.4rem;
}
.ends :deep(select) {
  width: auto;
  max-width: 9.5rem;
}
.choices {
  flex: none;
  display: flex;
  gap: 0.7rem;
}
.choices a {
  color: var(--ink-mid);
  text-decoration: none;
}
.choices a:hover {
  text-decoration: underline;
}
.choices a.on {
  color: var(--ink);
  font-weight: 700;
}
</style>
