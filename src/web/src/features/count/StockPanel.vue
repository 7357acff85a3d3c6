<script setup lang="ts">
import { answer, api, type AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'

/** The page designs of the album and how many leaves of each are owned. */
const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)

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
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.owned {
  width: 6rem;
}
</style>
