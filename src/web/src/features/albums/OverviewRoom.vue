<script setup lang="ts">
import { counted, plural } from '../../shared/words'
import { computed } from 'vue'
import type { AlbumView } from '../../api/client'
import { useCameras } from '../dates/queries'
import { useOverview } from './queries'
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
    list.push({ text: `${o.noDate} ${plural(o.noDate, 'picture has', 'pictures have')} no date.`, room: 'photos' })
  if (o.outside)
    list.push({
      text: `${o.outside} ${plural(o.outside, 'picture is', 'pictures are')} in no week or day of the album.`,
      room: 'photos',
    })
  if (o.lookalikes) list.push({ text: `${o.lookalikes} pictures are alike and not judged yet.`, room: 'photos' })
  const open = o.units.filter((u) => !['leftOut', 'laid', 'empty'].includes(u.progress))
  for (const u of open.slice(0, 4)) list.push({ text: `${u.title}: ${u.next}`, unitId: u.id, tab: u.step })
  return list
})
const most = computed(() => Math.max(1, ...(overview.value?.units.flatMap((u) => u.days.map((d) => d.photos)) ?? [1])))
const progressWords: Record<string, string> = {
  leftOut: 'left out',
  empty: 'empty',
  gathering: 'gathering',
  telling: 'to be told',
  placing: 'to be placed',
  laid: 'laid out',
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
      <p v-else class="mb-0">Nothing waits: everything that was gathered is laid out.</p>
      <p class="visually-quiet mb-0 mt-2">
        {{ counted(overview.photos, 'picture') }}, {{ overview.undecided }} not judged, {{ overview.leftOut }} left out,
        {{ overview.keepsakes }} in the keepsake envelope
      </p>
    </section>
    <ul v-if="overview" class="glance">
      <li v-for="u in overview.units" :key="u.id">
        <RouterLink class="glance-unit" :class="u.progress" :to="unitPlace(album.id, u.id, u.step as TabKey)">
          <span class="glance-head">
            <strong>{{ u.title }}</strong>
            <span class="state">{{ progressWords[u.progress] }}</span>
          </span>
          <span class="visually-quiet small">{{ u.label }}</span>
          <span v-if="u.photos || u.cards" class="glance-picture">
            <img v-if="u.picture" :src="u.picture + '512'" alt="" loading="lazy" />
            <span v-if="u.days.length > 1 && u.days.length <= 14" class="bars" aria-hidden="true">
              <span
                v-for="d in u.days"
                :key="d.day"
                class="bar"
                :class="{ gap: d.photos === 0 }"
                :title="`${d.label}: ${d.photos}`"
                :style="{ height: `${6 + (30 * d.photos) / most}px` }"
              ></span>
            </span>
          </span>
          <span v-if="u.photos || u.cards" class="small"
            >{{ counted(u.photos, 'picture') }} · {{ counted(u.cards, 'card') }} · {{ u.placed }} of
            {{ counted(u.pockets, 'pocket') }}</span
          >
          <span v-if="u.progress !== 'empty' && u.progress !== 'leftOut'" class="small next">{{ u.next }}</span>
        </RouterLink>
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
  grid-template-columns: repeat(auto-fill, minmax(12.5rem, 1fr));
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
  background: repeating-linear-gradient(135deg, #efe6d3 0 8px, var(--card) 8px 16px);
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
  color: #4b443c;
}
.glance-picture {
  display: flex;
  align-items: flex-end;
  gap: 0.6rem;
  height: 62px;
  margin: 0.25rem 0;
}
.glance-picture img {
  width: 80px;
  height: 60px;
  object-fit: cover;
  border-radius: 3px;
}
.bars {
  display: flex;
  align-items: flex-end;
  gap: 3px;
}
.bar {
  width: 9px;
  background: var(--mat);
  border-radius: 2px 2px 0 0;
}
.bar.gap {
  background: none;
  border: 1px dashed var(--warn);
}
.next {
  color: #6d3205;
}
</style>
