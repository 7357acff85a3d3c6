<script setup lang="ts">
import { counted, plural } from '../../shared/words'
import { computed, ref } from 'vue'
import type { AlbumView } from '../../api/client'
import { useWordsDue } from './queries'
import { unitPlace } from '../../shared/places'
import CardDue from './CardDue.vue'
import UnitWords from './UnitWords.vue'

/** All the words of several weeks or days in one flow: what is missing, the stories, and the cards as they print. */
const props = defineProps<{ album: AlbumView; unitIds: string[] }>()
const look = ref<'write' | 'print'>('write')
const onlyMissing = ref(false)

const {
  data: due,
  error,
  isFetching,
} = useWordsDue(
  () => props.album.id,
  () => props.unitIds[0],
  () => props.unitIds.length,
)
const shown = computed(() => (due.value ?? []).filter((u) => !onlyMissing.value || u.missing.length > 0))
const missing = computed(() => (due.value ?? []).filter((u) => u.missing.length > 0).length)
const cards = computed(() => (due.value ?? []).flatMap((u) => u.cards))
const troubled = computed(() => cards.value.filter((c) => c.problems.length > 0).length)
</script>

<template>
  <div class="room">
    <form class="d-flex flex-wrap gap-3 align-items-end mb-2" @submit.prevent>
      <div class="btn-group btn-group-sm" role="group" aria-label="Write or look at the cards">
        <button
          type="button"
          class="btn btn-outline-dark"
          :class="{ active: look === 'write' }"
          :aria-pressed="look === 'write'"
          @click="look = 'write'"
        >
          Write
        </button>
        <button
          type="button"
          class="btn btn-outline-dark"
          :class="{ active: look === 'print' }"
          :aria-pressed="look === 'print'"
          @click="look = 'print'"
        >
          Cards as they print
        </button>
      </div>
      <div class="form-check mb-1">
        <input id="only-missing" v-model="onlyMissing" type="checkbox" class="form-check-input" />
        <label for="only-missing" class="form-check-label">Only where something is missing</label>
      </div>
    </form>
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p v-else-if="due" class="mb-3" data-testid="words-due" aria-live="polite">
      {{ missing === 0 ? 'Nothing is missing' : `Something is missing in ${missing} of ${due.length}` }};
      {{ cards.length }} {{ plural(cards.length, 'card', 'cards')
      }}{{ troubled ? `, ${troubled} to look at before printing` : '' }}.
    </p>
    <p v-else-if="isFetching" class="visually-quiet">Looking over the words …</p>
    <section v-for="u in shown" :key="u.unitId" class="mb-4" :aria-label="`Words of ${u.title}`">
      <h2 class="h5 mb-1">
        <RouterLink :to="unitPlace(album.id, u.unitId, 'tell', 'cards')">{{ u.title }}</RouterLink>
        <small class="visually-quiet fw-normal ms-1">{{ u.label }} · {{ counted(u.words, 'word') }} on cards</small>
      </h2>
      <p v-if="u.missing.length" class="missing-line">
        <span v-for="m in u.missing" :key="m" class="warning-chip">! {{ m }}</span>
      </p>
      <UnitWords v-if="look === 'write'" :unit-id="u.unitId" />
      <ul v-else-if="u.cards.length" class="due">
        <CardDue v-for="c in u.cards" :key="c.piece.id" :card="c" />
      </ul>
      <p v-else class="visually-quiet">No cards here yet.</p>
    </section>
  </div>
</template>

<style scoped>
.missing-line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 0.5rem;
}
.due {
  display: flex;
  flex-wrap: wrap;
  gap: 1.2rem;
  align-items: flex-start;
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
