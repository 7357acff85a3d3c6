<script setup lang="ts">
import { computed } from 'vue'
import type { AlbumSummary } from '../../api/client'
import { unitPlace, type TabKey } from '../../shared/places'
import { counted } from '../../shared/words'
import { useOverview } from './queries'
import SpreadCover from './SpreadCover.vue'

/** An album on the shelf: its last finished spread, how far along it is, and the one next thing to do. */
const props = defineProps<{ album: AlbumSummary; large?: boolean }>()
defineEmits<{ away: [] }>()
const { data: overview } = useOverview(
  () => props.album.id,
  () => props.album.role !== 'reader',
)
const unitWords = { weekly: 'week', trip: 'travel day', documentedDay: 'hour', countdown: 'day' }

/** One's own album is put away; somebody else's is left. */
const awayWords = computed(() => (props.album.role === 'owner' ? 'Put away' : 'Leave'))
const units = computed(() => overview.value?.units ?? [])
const cover = computed(
  () => units.value.filter((u) => u.progress === 'laid').at(-1) ?? units.value.filter((u) => u.placed > 0).at(-1),
)
const next = computed(() => units.value.find((u) => !['leftOut', 'laid', 'empty'].includes(u.progress)))
const share = (u: { placed: number; pockets: number }) => (u.pockets ? Math.min(1, u.placed / u.pockets) : 0)
const done = computed(() => units.value.filter((u) => u.progress === 'laid').length)
const open = computed(() =>
  next.value
    ? unitPlace(props.album.id, next.value.id, next.value.step as TabKey)
    : { name: 'album', params: { albumId: props.album.id } },
)
</script>

<template>
  <article class="tile" :class="{ large }" :aria-label="album.name">
    <RouterLink :to="{ name: 'album', params: { albumId: album.id } }" class="cover" tabindex="-1" aria-hidden="true">
      <SpreadCover v-if="cover" :unit-id="cover.id" :title="cover.title" />
      <SpreadCover
        v-else-if="album.role === 'reader' && album.coverUnitId"
        :unit-id="album.coverUnitId"
        :title="album.name"
      />
      <span v-else class="blank">{{ album.body }}</span>
    </RouterLink>
    <div class="facts">
      <h2 class="h4 mb-0">
        <RouterLink :to="{ name: 'album', params: { albumId: album.id } }" class="name">{{ album.name }}</RouterLink>
      </h2>
      <p class="visually-quiet mb-1">
        {{ album.span }} · {{ counted(album.units, unitWords[album.kind]) }} · {{ counted(album.photos, 'photo') }} ·
        pages
        {{ album.body }}
      </p>
      <p v-if="album.role !== 'owner'" class="mb-1">
        {{ album.owner }}’s album; you are {{ album.role === 'editor' ? 'an editor' : 'a reader' }}
      </p>
      <p v-if="overview" class="progress-words visually-hidden">{{ done }} of {{ album.units }} laid out</p>
      <div v-if="overview" class="strip" aria-hidden="true" :title="`${done} of ${album.units} laid out`">
        <span v-for="u in units" :key="u.id" class="mark"
          ><span class="fill" :style="{ height: `${100 * share(u)}%` }"></span
        ></span>
      </div>
      <div class="d-flex align-items-center gap-2 mt-2">
        <span v-if="next" class="next">Next: {{ next.title }}. {{ next.next }}</span>
        <span v-else-if="overview" class="next">Next: add photos</span>
        <RouterLink :to="open" class="btn btn-sm ms-auto" :class="large ? 'btn-primary' : 'btn-outline-dark'">{{
          next ? `Open ${next.title}` : 'Open'
        }}</RouterLink>
      </div>
      <BButton
        size="sm"
        variant="link"
        class="away"
        :aria-label="`${awayWords} “${album.name}”`"
        @click="$emit('away')"
        >{{ awayWords }}</BButton
      >
    </div>
  </article>
</template>

<style scoped>
.tile {
  display: flex;
  flex-direction: column;
  overflow: hidden;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.6rem;
  box-shadow: 0 3px 10px rgb(60 40 20 / 0.12);
}
.cover {
  display: flex;
  align-items: center;
  justify-content: center;
  height: 11rem;
  padding: 0.9rem;
  background: var(--mat);
}
.tile.large .cover {
  height: 23rem;
  padding: 1.4rem;
}
.blank {
  color: #fff;
}
.facts {
  position: relative;
  padding: 0.8rem 1rem 0.9rem;
}
.name {
  color: inherit;
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
.strip {
  display: flex;
  height: 0.65rem;
  border: 1px solid #b9ac94;
  border-radius: 2px;
  background: var(--tape);
}
.mark {
  display: flex;
  flex: 1;
  align-items: flex-end;
  border-right: 1px solid rgb(120 90 30 / 0.25);
}
.mark:last-child {
  border-right: 0;
}
.fill {
  width: 100%;
  background: var(--zest);
}
.next {
  color: var(--zest-deep);
  font-weight: 600;
}
.away {
  padding: 0;
  color: var(--ink-soft);
}
</style>
