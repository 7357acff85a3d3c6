<script setup lang="ts">
import { counted, plural } from '../../shared/words'
import { computed, ref } from 'vue'
import type { AlbumView, OverviewView } from '../../api/client'
import { useCameras } from '../dates/queries'
import { useOverview } from './queries'
import SpreadCover from './SpreadCover.vue'
import { albumPlace, unitPlace, type TabKey } from '../../shared/places'

const props = defineProps<{ album: AlbumView }>()
const { data: overview } = useOverview(() => props.album.id)
const { data: cameras } = useCameras(() => props.album.id)

const todo = computed(() => {
  const o = overview.value
  if (!o) return []
  const list: { text: string; room?: string; unitId?: string; tab?: string }[] = []
  for (const c of cameras.value?.cameras ?? []) {
    if (c.doubt) list.push({ text: `The clock of ${c.camera} may be wrong.`, room: 'cameras' })
  }
  if (o.noDate)
    list.push({ text: `${o.noDate} ${plural(o.noDate, 'photo has', 'photos have')} no date.`, room: 'photos' })
  if (o.outside)
    list.push({
      text: `${o.outside} ${plural(o.outside, 'photo is', 'photos are')} outside the dates of the album.`,
      room: 'photos',
    })
  if (o.lookalikes) list.push({ text: `${o.lookalikes} pictures look alike; choose the best.`, room: 'photos' })
  const open = o.units.filter((u) => !['leftOut', 'laid', 'empty'].includes(u.progress))
  for (const u of open.slice(0, 4)) list.push({ text: `${u.title}: ${u.next}`, unitId: u.id, tab: u.step })
  return list
})
/** Empty weeks or days in a row are one tile until it is opened; a few stand by themselves. */
const FewestInARow = 3
const opened = ref(new Set<string>())
type Unit = OverviewView['units'][number]
const tiles = computed(() => {
  const list: Unit[][] = []
  for (const u of overview.value?.units ?? []) {
    const row = list.at(-1)
    if (u.progress === 'empty' && row?.[0]?.progress === 'empty') row.push(u)
    else list.push([u])
  }
  return list.flatMap((row) =>
    row.length < FewestInARow || opened.value.has(row[0]!.id) ? row.map((u) => ({ units: [u] })) : [{ units: row }],
  )
})
const expand = (id: string) => (opened.value = new Set(opened.value).add(id))

/** Arrow keys move along the tiles, a row at a time up and down. */
const sheet = ref<HTMLElement>()
function move(event: KeyboardEvent) {
  const all = [...(sheet.value?.querySelectorAll<HTMLElement>('.glance-unit') ?? [])]
  const at = all.indexOf(document.activeElement as HTMLElement)
  const left = (e: HTMLElement) => Math.round(e.getBoundingClientRect().left)
  const across = all.findIndex((e, i) => i > 0 && left(e) === left(all[0]!))
  const step = {
    ArrowLeft: -1,
    ArrowRight: 1,
    ArrowUp: -(across < 1 ? 1 : across),
    ArrowDown: across < 1 ? 1 : across,
  }[event.key]
  if (at < 0 || !step) return
  event.preventDefault()
  all[Math.min(Math.max(at + step, 0), all.length - 1)]?.focus()
}

/** Days of a week that have no photo while others have. */
const gaps = (u: Unit) => {
  const without = u.days.length <= 14 && u.photos > 0 ? u.days.filter((d) => d.photos === 0) : []
  return without.length ? `no photo on ${without.map((d) => d.label).join(', ')}` : ''
}

const progressWords: Record<string, string> = {
  leftOut: 'left out',
  empty: 'empty',
  gathering: 'gathering',
  telling: 'needs words',
  placing: 'being placed',
  laid: 'finished',
}
</script>

<template>
  <div class="room" data-testid="overview">
    <section v-if="overview" class="room-panel mb-3">
      <h2 class="h5">What to do next</h2>
      <ul v-if="todo.length" class="todo mb-0">
        <li v-for="(item, i) in todo" :key="i">
          <RouterLink
            :to="
              item.room
                ? albumPlace(album.id, 'gather', item.room)
                : unitPlace(album.id, item.unitId!, item.tab as TabKey)
            "
            >{{ item.text }}</RouterLink
          >
        </li>
      </ul>
      <p v-else class="mb-0">Everything you gathered is laid out. Add more photos, or print.</p>
      <p class="visually-quiet mb-0 mt-2">
        {{ counted(overview.photos, 'photo') }}, {{ overview.undecided }} not judged, {{ overview.leftOut }} left out,
        {{ overview.keepsakes }} in the keepsake envelope
      </p>
    </section>
    <ul v-if="overview" ref="sheet" class="glance" @keydown="move">
      <li v-for="{ units } in tiles" :key="units[0]!.id">
        <button v-if="units.length > 1" type="button" class="glance-unit run" @click="expand(units[0]!.id)">
          <strong>{{ units[0]!.title }} to {{ units.at(-1)!.title }}</strong>
          <span class="state">{{ units.length }} empty · show</span>
        </button>
        <template v-for="u in units.slice(0, 1)" v-else :key="u.id">
          <RouterLink class="glance-unit" :class="u.progress" :to="unitPlace(album.id, u.id, u.step as TabKey)">
            <span class="glance-head">
              <strong>{{ u.title }}</strong>
              <span class="state">{{ progressWords[u.progress] }}</span>
            </span>
            <span class="visually-quiet small">{{ u.label }}</span>
            <span v-if="u.placed > 0" class="glance-spread"><SpreadCover :unit-id="u.id" :title="u.title" /></span>
            <span v-else-if="u.picture" class="glance-picture"
              ><img :src="u.picture + '512'" alt="" loading="lazy"
            /></span>
            <span v-if="u.photos || u.cards" class="small"
              >{{ counted(u.photos, 'photo') }} · {{ counted(u.cards, 'card') }} · {{ u.placed }} of
              {{ counted(u.pockets, 'pocket') }}</span
            >
            <span v-if="gaps(u)" class="small">{{ gaps(u) }}</span>
            <span v-if="u.progress !== 'empty' && u.progress !== 'leftOut'" class="small next">{{ u.next }}</span>
          </RouterLink>
        </template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.todo {
  columns: 2 24rem;
}
.todo a {
  display: inline-block;
  padding: 3px 0;
}
.glance {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13.5rem, 1fr));
  gap: 0.5rem;
  align-items: start;
}
.glance-unit {
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
  padding: 0.45rem 0.7rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-left: 8px solid #b9ac94;
  border-radius: 0.5rem;
  color: inherit;
  text-decoration: none;
}
.glance-unit.laid {
  border-left-color: #22613a;
}
.glance-unit.gathering,
.glance-unit.telling,
.glance-unit.placing {
  border-left-color: var(--zest-bright);
}
.glance-unit.leftOut {
  background: repeating-linear-gradient(135deg, var(--paper) 0 8px, var(--card) 8px 16px);
}
.glance-unit:hover strong {
  text-decoration: underline;
}
.glance-head {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
}
.state {
  font-size: 0.78rem;
  color: var(--ink-mid);
}
.glance-spread {
  display: grid;
  place-items: center;
  height: 9rem;
  margin: 0.25rem -0.7rem;
  padding: 0.5rem;
  background: var(--mat);
}
.glance-picture {
  height: 5rem;
  margin: 0.25rem 0;
}
.glance-picture img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  border-radius: 3px;
}
.run {
  width: 100%;
  border: 1px dashed #8b8072;
  text-align: left;
}
.next {
  color: var(--zest-deep);
}
</style>
