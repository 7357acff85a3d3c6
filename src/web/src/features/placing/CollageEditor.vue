<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { CollageView, UnitView } from '../../api/client'
import type { PocketRef } from './hand'
import type { Edit } from './unit'

/** Several pictures in one print: made from pictures and a size, then changed cell by cell. */
const props = defineProps<{
  unit: UnitView
  edit: (change: Edit) => Promise<unknown>
  pieceId?: string
  faceUrl?: string | null
  collage?: CollageView
  warning?: string | null
  place?: PocketRef
  sizes?: string[]
}>()
const emit = defineEmits<{ made: [] }>()

const chosen = ref<string[]>([])
const size = ref('')
const words = ref(0)
const gutter = ref('1/16 in')
const cells = ref<{ key: string; photoId: string | null; words: string }[]>([])

watch(
  () => props.collage,
  (c) => {
    if (!c) return
    chosen.value = c.cells.map((cell) => cell.photoId).filter((id): id is string => !!id)
    size.value = c.size
    words.value = c.cells.filter((cell) => !cell.photoId).length
    gutter.value = c.gutter
    cells.value = c.cells.map((cell) => ({ key: cell.key, photoId: cell.photoId ?? null, words: cell.words }))
  },
  { immediate: true },
)
watch(
  () => props.sizes,
  (list) => {
    if (!props.collage && list?.length) size.value = list.find((s) => s === '6x4' || s === '4x6') ?? list[0]!
  },
  { immediate: true },
)

/** A new collage takes loose pictures; one that is there has its own to choose from too. */
const pictures = computed(() => props.unit.photos)
const nameOf = (id: string | null) => props.unit.photos.find((p) => p.id === id)?.fileName ?? 'a picture'
const fits = computed(() => chosen.value.length + words.value >= 2 && chosen.value.length + words.value <= 9)

async function lay() {
  const collage = { size: size.value, photoIds: chosen.value, wordCells: words.value, gutter: gutter.value }
  const done = props.pieceId
    ? await props.edit({ kind: 'changeCollage', pieceId: props.pieceId, collage })
    : await props.edit({ kind: 'addCollage', collage, place: props.place })
  if (done && !props.pieceId) emit('made')
}

const write = () =>
  props.edit({
    kind: 'changeCollage',
    pieceId: props.pieceId!,
    collage: {
      size: size.value,
      photoIds: [],
      layout: props.collage!.layout,
      gutter: gutter.value,
      cells: cells.value,
    },
  })
</script>

<template>
  <section class="collage" :aria-label="collage ? 'The collage' : 'A new collage'">
    <img v-if="faceUrl" :src="faceUrl" class="face" alt="The collage as it prints" />
    <p v-if="warning" class="warning-chip">! {{ warning }}</p>
    <form v-if="collage" class="mb-2" @submit.prevent="write">
      <div v-for="(cell, i) in cells" :key="cell.key" class="mb-1">
        <template v-if="cell.photoId"
          ><span class="small"
            >Cell {{ i + 1 }}: {{ nameOf(cell.photoId) }}
            <span class="visually-quiet">{{ collage.cells[i]?.lossPercent }} % cropped away</span></span
          ></template
        >
        <template v-else>
          <label :for="`cell-${cell.key}`" class="form-label mb-0">Words in cell {{ i + 1 }}</label>
          <textarea
            :id="`cell-${cell.key}`"
            v-model="cell.words"
            rows="2"
            maxlength="1000"
            class="form-control form-control-sm"
          ></textarea>
        </template>
      </div>
      <BButton v-if="cells.some((c) => !c.photoId)" type="submit" size="sm" variant="primary">Save words</BButton>
    </form>
    <form @submit.prevent="lay">
      <fieldset>
        <legend class="form-label fs-6 mb-0">Pictures in it ({{ chosen.length }})</legend>
        <div class="pictures">
          <label v-for="p in pictures" :key="p.id" class="picture" :class="{ on: chosen.includes(p.id) }">
            <input v-model="chosen" type="checkbox" class="form-check-input" :value="p.id" :aria-label="p.fileName" />
            <img :src="p.picture + '512'" alt="" loading="lazy" />
          </label>
        </div>
      </fieldset>
      <div class="row g-2 mt-1">
        <div v-if="!collage" class="col-4">
          <label for="collage-size" class="form-label mb-0">Size</label>
          <BFormSelect id="collage-size" v-model="size" size="sm">
            <option v-for="s in sizes" :key="s" :value="s">{{ s }}</option>
          </BFormSelect>
        </div>
        <div class="col-4">
          <label for="collage-words" class="form-label mb-0">Word cells</label>
          <input
            id="collage-words"
            v-model.number="words"
            type="number"
            min="0"
            max="8"
            class="form-control form-control-sm"
          />
        </div>
        <div class="col-4">
          <label for="collage-gutter" class="form-label mb-0">Gutter</label>
          <input id="collage-gutter" v-model="gutter" class="form-control form-control-sm" />
        </div>
      </div>
      <BButton type="submit" size="sm" :variant="collage ? 'outline-dark' : 'primary'" class="mt-2" :disabled="!fits">{{
        collage ? 'Lay the cells anew' : 'Make this collage'
      }}</BButton>
      <p class="form-text mb-0">2 to 9 cells; the layout in which the pictures lose least is found for you.</p>
    </form>
  </section>
</template>

<style scoped>
.face {
  max-width: 100%;
  max-height: 240px;
  border: 1px solid #8b8072;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(62px, 1fr));
  gap: 4px;
  max-height: 190px;
  overflow-y: auto;
}
.picture {
  position: relative;
  border: 3px solid transparent;
  border-radius: 4px;
  cursor: pointer;
}
.picture.on {
  border-color: var(--zest);
}
.picture img {
  display: block;
  width: 100%;
  height: 46px;
  object-fit: cover;
}
.picture input {
  position: absolute;
  left: 3px;
  top: 3px;
  width: 24px;
  height: 24px;
  margin: 0;
}
</style>
