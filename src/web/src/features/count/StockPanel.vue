<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { useCatalog } from '../albums/queries'

/** The page designs of the album and how many leaves of each are owned. */
const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)

const { data: catalog } = useCatalog()
const wanted = ref('')

/** Designs of the album's page body that it does not use yet. */
const others = computed(() =>
  (catalog.value?.designs ?? []).filter(
    (d) =>
      d.bodyWidth === props.album.body.width &&
      d.bodyHeight === props.album.body.height &&
      !props.album.protectors.some((p) => p.designKey === d.key && !p.gone),
  ),
)

async function use() {
  const done = await act(() =>
    answer(
      api.POST('/api/albums/{albumId}/protectors', {
        params: { path: { albumId: props.album.id } },
        body: { designKey: wanted.value },
      }),
    ),
  )
  if (done) wanted.value = ''
}

const giveUp = (protectorId: string) =>
  act(() =>
    answer(
      api.DELETE('/api/albums/{albumId}/protectors/{protectorId}', {
        params: { path: { albumId: props.album.id, protectorId } },
      }),
    ),
  )

const own = (protectorId: string, text: string) =>
  act(() =>
    answer(
      api.PUT('/api/albums/{albumId}/protectors/{protectorId}/stock', {
        params: { path: { albumId: props.album.id, protectorId } },
        body: { stock: text.trim() === '' ? null : Number(text) },
      }),
    ),
  )
</script>

<template>
  <details class="panel border rounded p-3">
    <summary class="h6 mb-0">Pages you own</summary>
    <p class="form-text">
      Leave a number empty when they never run out. What the stock is short of is named when pages are chosen.
    </p>
    <table class="table table-sm mb-0">
      <thead>
        <tr>
          <th scope="col">Design</th>
          <th scope="col">Pockets</th>
          <th scope="col">In this album</th>
          <th scope="col">Owned, in all</th>
          <th scope="col"><span class="visually-hidden">Give up</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in album.protectors" :key="p.id">
          <th scope="row">{{ p.designName }}</th>
          <td>{{ p.pockets }}</td>
          <td>{{ p.inUse }}</td>
          <td>
            <input
              type="number"
              min="0"
              class="form-control form-control-sm owned"
              :aria-label="`Leaves of ${p.designName} you own`"
              :value="p.stock ?? ''"
              @change="own(p.id, ($event.target as HTMLInputElement).value)"
            />
          </td>
          <td>
            <BButton
              v-if="!p.gone && album.protectors.filter((other) => !other.gone).length > 1"
              size="sm"
              variant="outline-dark"
              :aria-label="`Give up ${p.designName}`"
              @click="giveUp(p.id)"
              >Give up</BButton
            >
            <span v-else-if="p.gone" class="small visually-quiet">no more of them</span>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="others.length" class="d-flex gap-2 align-items-end mt-2" @submit.prevent="use">
      <div>
        <label for="other-design" class="form-label mb-0">Another design for these pages</label>
        <select id="other-design" v-model="wanted" class="form-select form-select-sm" required>
          <option value="" disabled>Choose one</option>
          <option v-for="d in others" :key="d.key" :value="d.key">{{ d.name }}</option>
        </select>
      </div>
      <BButton type="submit" size="sm" variant="outline-dark" :disabled="!wanted">Use it too</BButton>
    </form>
  </details>
</template>

<style scoped>
.owned {
  width: 6rem;
}
</style>
