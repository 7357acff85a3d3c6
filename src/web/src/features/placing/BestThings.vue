<script setup lang="ts">
import { computed } from 'vue'
import type { PocketOffer, UnitView } from '../../api/client'
import { loosePhotos } from './attached'
import type { PocketRef } from './hand'
import { useThingsFor } from './queries'
import type { Edit } from './unit'

/** The loose photos and cards that suit an open pocket best, each with its price. */
const props = defineProps<{
  unit: UnitView
  code: string
  place: PocketRef
  edit: (change: Edit) => Promise<unknown>
}>()
const { data } = useThingsFor(
  () => props.unit,
  () => props.code,
)

const photos = computed(() => new Map(loosePhotos(props.unit).map((p) => [p.id, p])))
const cards = computed(() => new Map(props.unit.looseCards.map((c) => [c.id, c])))
const things = computed(() =>
  (data.value ?? [])
    .map((offer) => ({ offer, photo: photos.value.get(offer.key), card: cards.value.get(offer.key) }))
    .filter((t) => t.photo ?? t.card)
    .slice(0, 5),
)

const put = (offer: PocketOffer) =>
  props.edit(
    photos.value.has(offer.key)
      ? { kind: 'putPhoto', photoId: offer.key, place: props.place }
      : { kind: 'movePiece', pieceId: offer.key, place: props.place },
  )
</script>

<template>
  <section v-if="things.length" class="mb-2" aria-labelledby="best-things">
    <h3 id="best-things" class="h6">Best for this pocket</h3>
    <ul>
      <li v-for="{ offer, photo, card } in things" :key="offer.key">
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :aria-label="`Put ${photo?.fileName ?? card?.title} here: ${offer.words}`"
          @click="put(offer)"
        >
          <img :src="photo ? `${photo.picture}512` : (card?.faceUrl ?? '')" alt="" loading="lazy" />
          <span>{{ offer.words }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 0.3rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
button {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  width: 100%;
  text-align: left;
}
img {
  width: 3.2rem;
  height: 2.4rem;
  object-fit: contain;
}
</style>
