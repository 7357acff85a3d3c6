<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useAlbumWords } from './queries'

/** Who the album is about; their ages on a card are computed from here. */
const props = defineProps<{ album: AlbumView }>()
const { data: words } = useAlbumWords(() => props.album.id)
const { act } = useAct(() => props.album.id)
const people = ref<{ name: string; born: string }[]>([])

watch(
  words,
  (c) => {
    people.value = (c?.people ?? []).map((p) => ({ name: p.name, born: p.born ?? '' }))
  },
  { immediate: true },
)

const save = () =>
  act(() =>
    editAlbum(props.album.id, {
      kind: 'setPeople',
      revision: words.value!.revision,
      people: people.value.filter((p) => p.name.trim()).map((p) => ({ name: p.name, born: p.born || null })),
    }),
  )
</script>

<template>
  <div class="room">
    <h2 class="h5">People in this album</h2>
    <p class="form-text">
      Their names are known to the spelling check, and their ages on cards are worked out from the birthday.
    </p>
    <p v-if="people.length === 0" class="visually-quiet">Nobody yet. Add the people this album is about.</p>
    <form class="people" @submit.prevent="save">
      <div v-for="(person, i) in people" :key="i" class="person">
        <div>
          <label class="form-label mb-0" :for="`person-${i}`">Name</label>
          <input :id="`person-${i}`" v-model="person.name" class="form-control form-control-sm" maxlength="80" />
        </div>
        <div>
          <label class="form-label mb-0" :for="`born-${i}`">Born (optional)</label>
          <input :id="`born-${i}`" v-model="person.born" type="date" class="form-control form-control-sm" />
        </div>
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :aria-label="`Delete ${person.name || 'this person'}`"
          @click="people.splice(i, 1)"
        >
          Delete
        </button>
      </div>
      <div class="d-flex gap-2 mt-2">
        <BButton size="sm" variant="outline-dark" @click="people.push({ name: '', born: '' })">Add a person</BButton>
        <BButton type="submit" size="sm" variant="primary" :disabled="!words">Save</BButton>
      </div>
    </form>
  </div>
</template>

<style scoped>
.people {
  max-width: 42rem;
}
.person {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: end;
  padding: 0.3rem 0;
}
</style>
