<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { useAlbumWords } from '../words/queries'

/** The binder's windows for a spine and a cover, and the sheet with all that goes into them. */
const props = defineProps<{ album: AlbumView; hasTabs: boolean }>()
const { act } = useAct(() => props.album.id)
const { data: words } = useAlbumWords(() => props.album.id)
const spine = ref('')
const cover = ref('')
watch(
  () => [words.value?.spine, words.value?.cover],
  () => {
    spine.value = words.value?.spine ?? ''
    cover.value = words.value?.cover ?? ''
  },
  { immediate: true },
)

const measure = () =>
  act(() =>
    editAlbum(props.album.id, {
      kind: 'measureBinder',
      revision: words.value!.revision,
      spine: spine.value || null,
      cover: cover.value || null,
    }),
  )
const papers = [
  { key: 'letter', name: 'Letter' },
  { key: 'a4', name: 'A4' },
]
const paper = ref(props.album.measures === 'inches' ? 'letter' : 'a4')
</script>

<template>
  <details class="mb-3">
    <summary>Spine, cover and labels of index tabs</summary>
    <form class="d-flex flex-wrap gap-2 align-items-end mt-2" @submit.prevent="measure">
      <div>
        <label for="spine-size" class="form-label mb-0">Window of the spine</label>
        <input id="spine-size" v-model="spine" class="form-control form-control-sm" placeholder="1 1/2 x 11 in" />
      </div>
      <div>
        <label for="cover-size" class="form-label mb-0">Window of the cover</label>
        <input id="cover-size" v-model="cover" class="form-control form-control-sm" placeholder="8 1/2 x 11 in" />
      </div>
      <BButton type="submit" size="sm" variant="outline-dark">Save sizes</BButton>
      <div>
        <label for="insert-paper" class="form-label mb-0">Paper</label>
        <BFormSelect id="insert-paper" v-model="paper" size="sm">
          <option v-for="p in papers" :key="p.key" :value="p.key">{{ p.name }}</option>
        </BFormSelect>
      </div>
      <a
        v-if="words?.spine || words?.cover || hasTabs"
        class="btn btn-sm btn-primary"
        :href="`/api/albums/${album.id}/inserts.pdf?paper=${paper}&margin=5+mm`"
        download
        >Create PDF</a
      >
    </form>
    <p class="form-text mb-0">
      Each is cut 1/16 in smaller than its window, so that it slides in. A label of a tab is folded over the edge.
    </p>
  </details>
</template>
