<script setup lang="ts">
import { counted, plural } from '../../shared/words'
import { computed, ref, watchEffect } from 'vue'
import type { AlbumView } from '../../api/client'
import { useWordsDue } from './queries'
import AlbumPeople from './AlbumPeople.vue'
import CardDue from './CardDue.vue'
import UnitWords from './UnitWords.vue'

/** All the words of several weeks or days in one flow: what is missing, the stories, and the cards as they print. */
const props = defineProps<{ album: AlbumView }>()
const from = ref('')
const count = ref(4)
const look = ref<'write' | 'print'>('write')
const onlyMissing = ref(false)

// Begins where the pictures are.
watchEffect(() => {
  const units = props.album.units.filter((u) => !u.leftOut)
  if (!from.value) from.value = (units.find((u) => u.photos > 0) ?? units[0])?.id ?? ''
})

const {
  data: due,
  error,
  isFetching,
} = useWordsDue(
  () => props.album.id,
  () => from.value || undefined,
  count,
)
const shown = computed(() => (due.value ?? []).filter((u) => !onlyMissing.value || u.missing.length > 0))
const missing = computed(() => (due.value ?? []).filter((u) => u.missing.length > 0).length)
const cards = computed(() => (due.value ?? []).flatMap((u) => u.cards))
const troubled = computed(() => cards.value.filter((c) => c.problems.length > 0).length)
</script>

<template>
  <div class="room">
    <form class="d-flex flex-wrap gap-3 align-items-end mb-2" @submit.prevent>
      <div>
        <label for="words-from" class="form-label mb-0">From</label>
        <BFormSelect id="words-from" v-model="from" size="sm">
          <option v-for="u in album.units.filter((u) => !u.leftOut)" :key="u.id" :value="u.id">
            {{ u.title }} · {{ u.label }}
          </option>
        </BFormSelect>
      </div>
      <div>
        <label for="words-count" class="form-label mb-0">How many</label>
        <input
          id="words-count"
          v-model.number.lazy="count"
          type="number"
          min="1"
          max="60"
          class="form-control form-control-sm"
        />
      </div>
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
    <AlbumPeople v-if="look === 'write'" :album-id="album.id" />
    <section v-for="u in shown" :key="u.unitId" class="mb-4" :aria-label="`Words of ${u.title}`">
      <h2 class="h5 mb-1">
        <RouterLink :to="{ name: 'desk', params: { albumId: album.id, unitId: u.unitId, tab: 'tell' } }">{{
          u.title
        }}</RouterLink>
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
