<script setup lang="ts">
import { ref, watch } from 'vue'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useAlbumWords } from './queries'

/** Who the album is about; their ages on a card are computed from here. */
const props = defineProps<{ albumId: string }>()
const { data: album } = useAlbumWords(() => props.albumId)
const { act } = useAct(() => props.albumId)
const people = ref<{ name: string; born: string }[]>([])

watch(
  album,
  (c) => {
    people.value = (c?.people ?? []).map((p) => ({ name: p.name, born: p.born ?? '' }))
  },
  { immediate: true },
)

const save = () =>
  act(() =>
    editAlbum(props.albumId, {
      kind: 'setPeople',
      revision: album.value!.revision,
      people: people.value.filter((p) => p.name.trim()).map((p) => ({ name: p.name, born: p.born || null })),
    }),
  )
</script>

<template>
  <details class="panel border rounded p-3 mb-3">
    <summary class="h6 mb-0">Who this album is about ({{ album?.people.length ?? 0 }})</summary>
    <p class="form-text">Names are checked in your words; ages on cards follow from the birthday.</p>
    <form @submit.prevent="save">
      <div v-for="(person, i) in people" :key="i" class="person">
        <div>
          <label class="form-label mb-0" :for="`person-${i}`">Name</label>
          <input :id="`person-${i}`" v-model="person.name" class="form-control form-control-sm" maxlength="80" />
        </div>
        <div>
          <label class="form-label mb-0" :for="`born-${i}`">Born, if you like</label>
          <input :id="`born-${i}`" v-model="person.born" type="date" class="form-control form-control-sm" />
        </div>
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :aria-label="`Take away ${person.name || 'this person'}`"
          @click="people.splice(i, 1)"
        >
          Take away
        </button>
      </div>
      <div class="d-flex gap-2 mt-2">
        <BButton size="sm" variant="outline-dark" @click="people.push({ name: '', born: '' })">Add somebody</BButton>
        <BButton type="submit" size="sm" variant="primary" :disabled="!album">Save</BButton>
      </div>
    </form>
  </details>
</template>

<style scoped>
.person {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: end;
  padding: 0.3rem 0;
}
</style>
