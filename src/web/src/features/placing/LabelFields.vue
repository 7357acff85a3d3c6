<script setup lang="ts">
import { ref, watch } from 'vue'
import type { PieceView } from '../../api/client'
import { across, down } from './compose'
import type { Edit } from './unit'

/** A label, strips of words or letters: written and stuck on a piece, or changed. */
const props = defineProps<{ toId?: string; piece?: PieceView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ done: [] }>()

type Label = NonNullable<PieceView['label']>
const forms: { form: Label['form']; name: string }[] = [
  { form: 'label', name: 'One label' },
  { form: 'strips', name: 'A strip for each line' },
  { form: 'letters', name: 'A tile for each letter' },
]

const words = ref('')
const form = ref<Label['form']>('label')
const sizePt = ref(12)
const paper = ref('#ffffff')
const place = ref<{ across: (typeof across)[number]['place']; down: (typeof down)[number]['place'] }>({
  across: 'centre',
  down: 'bottom',
})
watch(
  () => props.piece,
  (piece) => {
    if (!piece?.label) return
    words.value = piece.label.words
    form.value = piece.label.form
    sizePt.value = piece.label.sizePt
    paper.value = piece.label.paper
    if (piece.attachment) place.value = { across: piece.attachment.across, down: piece.attachment.down }
  },
  { immediate: true },
)

async function write() {
  const done = await props.edit({
    kind: 'writeLabel',
    words: words.value,
    form: form.value,
    sizePt: Number(sizePt.value),
    paper: paper.value,
    toId: props.toId ?? null,
    pieceId: props.piece?.id ?? null,
    ...place.value,
  })
  if (done) emit('done')
}
</script>

<template>
  <form class="mt-2" @submit.prevent="write">
    <label for="label-words" class="form-label mb-0">Words of the label</label>
    <textarea id="label-words" v-model="words" class="form-control form-control-sm" rows="2" maxlength="240" required />
    <div class="fields mt-1">
      <label for="label-form">Cut as</label>
      <BFormSelect id="label-form" v-model="form" size="sm">
        <option v-for="f in forms" :key="f.form" :value="f.form">{{ f.name }}</option>
      </BFormSelect>
      <label for="label-size">Type size</label>
      <span class="pair">
        <input
          id="label-size"
          v-model="sizePt"
          type="number"
          min="7"
          max="200"
          step="0.5"
          class="form-control form-control-sm"
        />
        <input
          v-model="paper"
          type="color"
          class="form-control form-control-sm form-control-color"
          aria-label="Colour of the label"
        />
      </span>
      <label for="label-across">Place</label>
      <span class="pair">
        <BFormSelect id="label-across" v-model="place.across" size="sm">
          <option v-for="a in across" :key="a.place" :value="a.place">{{ a.name }}</option>
        </BFormSelect>
        <BFormSelect v-model="place.down" size="sm" aria-label="How far down the label lies">
          <option v-for="d in down" :key="d.place" :value="d.place">{{ d.name }}</option>
        </BFormSelect>
      </span>
    </div>
    <p v-if="piece?.label" class="form-text mb-1">{{ piece.label.size }}, as the words need.</p>
    <BButton type="submit" size="sm" variant="primary" class="mt-2">{{
      piece ? 'Change label' : 'Stick it on'
    }}</BButton>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  gap: 0.3rem 0.5rem;
  align-items: center;
}
.pair {
  display: flex;
  gap: 0.3rem;
}
.form-control-color {
  flex: none;
  width: 2.4rem;
  padding: 0.2rem;
}
</style>
