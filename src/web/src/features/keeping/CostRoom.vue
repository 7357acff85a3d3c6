<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumView, Money } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { place, unitPlace } from '../../shared/places'
import MoneyField from '../../shared/MoneyField.vue'
import { useCosts } from './queries'

/** What the materials of each week, of each month and of the whole album cost. */
const props = defineProps<{ album: AlbumView }>()
const { data, error } = useCosts(() => props.album.id)
const { act } = useAct(() => props.album.id)
const busy = ref(false)
const price = ref<Money | null>(null)
watch(data, (now) => (price.value = now?.leafPrice ?? null), { immediate: true })

async function setPrice() {
  busy.value = true
  try {
    await act(() =>
      editAlbum(props.album.id, {
        kind: 'setLeafPrice',
        revision: data.value!.revision,
        price: price.value,
      }),
    )
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="room" data-testid="costs">
    <section class="room-panel mb-3" aria-labelledby="costs-head">
      <h2 id="costs-head" class="h5 mb-1">Costs</h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <p role="status">{{ data?.words ?? 'Counting …' }}</p>
      <p v-if="data?.withoutPrice.length" class="warning-chip">
        ! No price yet for {{ data.withoutPrice.join(', ') }}: in no sum.
        <RouterLink :to="place(album.id, { kind: 'album' }, 'print', 'papers')">Write it in Papers</RouterLink>
      </p>
      <p v-if="data?.withoutRate.length" class="warning-chip">
        ! No rate for {{ data.withoutRate.join(', ') }}: in no sum. Write rates in the trip log.
      </p>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="setPrice">
        <MoneyField id="leaf-price" v-model="price" label="One page protector costs" />
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !data">Set price</BButton>
      </form>
      <p class="form-text mb-0">
        Paper is counted by area with a quarter for what is cut off, at the prices in Papers. Each page is half a
        protector. Lab orders, the stash and keepsakes count with the prices written there.
      </p>
    </section>
    <section v-if="data?.isPriced" class="room-panel" aria-labelledby="cost-list-head">
      <h3 id="cost-list-head" class="h6">By month and spread</h3>
      <ul class="list-unstyled d-flex flex-wrap gap-3">
        <li v-for="m in data.months" :key="m.month">{{ m.month }}: {{ m.total }}</li>
      </ul>
      <div class="table-responsive">
        <table class="table table-sm mb-0">
          <thead>
            <tr>
              <th scope="col">Spread</th>
              <th scope="col" class="text-end">Paper</th>
              <th scope="col" class="text-end">Pages</th>
              <th scope="col" class="text-end">Lab</th>
              <th scope="col" class="text-end">Stash</th>
              <th scope="col" class="text-end">Keepsakes</th>
              <th scope="col" class="text-end">Together</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="u in data.units" :key="u.unitId">
              <td>
                <RouterLink :to="unitPlace(album.id, u.unitId, 'place')">{{ u.title }}</RouterLink>
                <span v-if="!u.isFinished" class="visually-quiet"> not finished</span>
              </td>
              <td class="text-end">{{ u.paper }}</td>
              <td class="text-end">{{ u.leaves }}</td>
              <td class="text-end">{{ u.lab }}</td>
              <td class="text-end">{{ u.stash }}</td>
              <td class="text-end">{{ u.keepsakes }}</td>
              <td class="text-end">{{ u.total }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  </div>
</template>
