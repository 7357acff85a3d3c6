<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answer, api, type PhotoView, type PieceView, type UnitView, type WrittenBoughtCard } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { loosePhotos } from './attached'
import CardCornersPicker from './CardCornersPicker.vue'
import type { PocketRef } from './hand'
import PlacesOnCard from './PlacesOnCard.vue'
import type { Edit } from './unit'

/** A bought card from a photo of it: squared up, trimmed, typed on, with a picture mounted. */
const props = defineProps<{
  unit: UnitView
  /** The photo of a new card. */
  photo?: PhotoView
  /** The card that is changed. */
  piece?: PieceView
  place?: PocketRef
  edit: (change: Edit) => Promise<unknown>
}>()
const emit = defineEmits<{ made: [] }>()
const notices = useNotices()

type Corner = { x: number; y: number }
const whole: Corner[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
]
const photoId = computed(() => props.piece?.pictureId ?? props.photo?.id ?? '')
const taken = computed(() => props.unit.photos.find((p) => p.id === photoId.value) ?? props.photo ?? null)
const draft = ref<WrittenBoughtCard>({
  name: '',
  corners: whole,
  size: '4x6 in',
  keepX: '0',
  keepY: '0',
  words: '',
  wordsPlace: null,
  picturePlace: null,
  picturePhotoId: null,
})
watch(
  () => props.piece?.boughtCard,
  (card) => {
    if (card) draft.value = JSON.parse(JSON.stringify(card)) as WrittenBoughtCard
  },
  { immediate: true },
)
const said = ref('')

async function findCorners() {
  try {
    const found = await answer(
      api.GET('/api/units/{id}/photos/{photoId}/corners', {
        params: { path: { id: props.unit.id, photoId: photoId.value } },
      }),
    )
    draft.value.corners = found.corners
    said.value = found.words
  } catch (error) {
    notices.refused(error)
  }
}
if (!props.piece) void findCorners()

const mountable = computed(() => [
  ...props.unit.photos.filter((p) => p.id === draft.value.picturePhotoId),
  ...loosePhotos(props.unit).filter((p) => p.id !== photoId.value),
])
const nothing = { x: '1/4 in', y: '1/4 in', width: '2 in', height: '1 in' }

async function save() {
  const card = JSON.parse(JSON.stringify(draft.value)) as WrittenBoughtCard
  const done = props.piece
    ? await props.edit({ kind: 'changeBoughtCard', pieceId: props.piece.id, card })
    : await props.edit({ kind: 'addBoughtCard', photoId: photoId.value, card, place: props.place ?? null })
  if (done) emit('made')
}

/** What is drawn or moved is kept at once, with whatever was typed before. */
function change(part: Partial<WrittenBoughtCard>) {
  draft.value = { ...draft.value, ...part }
  return save()
}

async function findPlace() {
  if (!props.piece) return
  try {
    const found = await answer(
      api.GET('/api/units/{id}/pieces/{pieceId}/free-place', {
        params: { path: { id: props.unit.id, pieceId: props.piece.id } },
      }),
    )
    said.value = found.words
    if (found.place) {
      draft.value.wordsPlace = found.place
      await save()
    }
  } catch (error) {
    notices.refused(error)
  }
}
const fields = ['x', 'y', 'width', 'height'] as const
const names = { x: 'from the left', y: 'from the top', width: 'wide', height: 'high' }
</script>

<template>
  <form class="mt-2" @submit.prevent="save">
    <PlacesOnCard
      v-if="piece?.faceUrl && piece.onCard"
      :face="piece.faceUrl"
      :title="piece.title"
      :places="piece.onCard"
      :picture="!!draft.picturePhotoId"
      @words="(place) => change({ wordsPlace: place })"
      @picture="(place) => place && change({ picturePlace: place })"
      @keep="(keepX, keepY) => change({ keepX, keepY })"
    />
    <details :open="!piece">
      <summary>Corners and size</summary>
      <CardCornersPicker v-if="taken" v-model="draft.corners" :photo="taken" />
      <BButton size="sm" variant="outline-dark" class="mt-1" @click="findCorners">Find the corners</BButton>
      <div class="row-of mt-2">
        <div>
          <label for="bought-name" class="form-label mb-0">Name or pack</label>
          <input
            id="bought-name"
            v-model="draft.name"
            class="form-control form-control-sm"
            maxlength="80"
            required
            placeholder="spring cards"
          />
        </div>
        <div>
          <label for="bought-size" class="form-label mb-0">Measured size</label>
          <input id="bought-size" v-model="draft.size" class="form-control form-control-sm" required />
        </div>
      </div>
    </details>
    <p v-if="said" class="form-text mb-1" role="status">{{ said }}</p>
    <template v-if="piece">
      <fieldset class="mt-2">
        <legend class="form-label fs-6 mb-0">The part that is kept begins</legend>
        <div class="row-of">
          <input v-model="draft.keepX" class="form-control form-control-sm" aria-label="From the left edge" />
          <input v-model="draft.keepY" class="form-control form-control-sm" aria-label="From the top edge" />
        </div>
        <p v-if="piece.offcuts?.length" class="form-text mb-0" data-testid="offcuts">
          Cut off and left to use: {{ piece.offcuts.join('; ') }}
        </p>
      </fieldset>
      <label for="bought-words" class="form-label mb-0 mt-2">Words on its free place</label>
      <textarea id="bought-words" v-model="draft.words" class="form-control form-control-sm" rows="3" />
      <p v-if="piece.fit" class="form-text mb-1">{{ piece.fit.verdict }}</p>
      <div class="d-flex gap-2 mt-1">
        <BButton size="sm" variant="outline-dark" @click="findPlace">Find the free place</BButton>
        <BButton v-if="!draft.wordsPlace" size="sm" variant="outline-dark" @click="draft.wordsPlace = { ...nothing }"
          >Measure it</BButton
        >
      </div>
      <div v-if="draft.wordsPlace" class="four mt-1">
        <input
          v-for="f in fields"
          :key="f"
          v-model="draft.wordsPlace[f]"
          class="form-control form-control-sm"
          :aria-label="`Words ${names[f]}`"
          :title="names[f]"
        />
      </div>
      <label for="bought-picture" class="form-label mb-0 mt-2">Picture mounted on it</label>
      <BFormSelect
        id="bought-picture"
        size="sm"
        :model-value="draft.picturePhotoId ?? ''"
        @update:model-value="
          (id) => {
            draft.picturePhotoId = (id as string) || null
            draft.picturePlace = id ? (draft.picturePlace ?? { ...nothing }) : null
          }
        "
      >
        <option value="">none</option>
        <option v-for="p in mountable" :key="p.id" :value="p.id">{{ p.fileName }}</option>
      </BFormSelect>
      <div v-if="draft.picturePlace" class="four mt-1">
        <input
          v-for="f in fields"
          :key="f"
          v-model="draft.picturePlace[f]"
          class="form-control form-control-sm"
          :aria-label="`Picture ${names[f]}`"
          :title="names[f]"
        />
      </div>
    </template>
    <BButton type="submit" size="sm" variant="primary" class="mt-2">{{
      piece ? 'Change the card' : 'Add the card'
    }}</BButton>
  </form>
</template>

<style scoped>
.row-of {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
}
.four {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.3rem;
}
</style>
